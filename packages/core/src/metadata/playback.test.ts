import { describe, expect, it } from "vitest";
import { playbackOf } from "./read-clips";

describe("words for how a clip plays", () => {
  it("play once if a loop is denied", () => {
    for (const word of ["no loop", "noloop", "No-Loop", "non-looping", "not repeated", "no", "false", "once", false, 0])
      expect(playbackOf(word, null).playback, String(word)).toBe("once");
    for (const word of ["loop", "looping", "repeat", "true", true]) expect(playbackOf(word, null).playback, String(word)).toBe("loop");
  });

  it("keep that it is reversed, also of a ping-pong or once", () => {
    expect(playbackOf("ping-pong reverse", null)).toMatchObject({ playback: "pingpong", reversed: true });
    expect(playbackOf("reverse once", null)).toMatchObject({ playback: "once", reversed: true });
    expect(playbackOf("reverse", null)).toMatchObject({ playback: "loop", reversed: true });
  });
});
