import { describe, expect, it } from "vitest";
import type { Input } from "../model";
import { checkedTrack } from "./track";

const inputs: Input[] = [
  { name: "act", kind: "button" },
  { name: "lamp", kind: "switch" },
  { name: "speed", kind: "number" },
];
const check = (content: unknown) => () => checkedTrack(content, { inputs }, "track.json");

describe("a track", () => {
  it("is accepted unchanged, several entries at one time included", () => {
    const track = [
      { at: 0, press: "act" },
      { at: 0, set: { lamp: true, speed: 2.5 } },
      { at: 0.001, face: "nw" },
      { at: 7, release: "act" },
    ];
    expect(checkedTrack(track, { inputs }, "track.json")).toEqual(track);
    expect(checkedTrack([], { inputs }, "track.json")).toEqual([]);
  });

  it.each([
    ["is no list", {}, /track\.json: A track is a JSON list/],
    [
      "begins before time 0",
      [
        { at: 0, press: "act" },
        { at: -1, press: "act" },
      ],
      /entry 1: .*in ms from 0/,
    ],
    [
      "goes back in time",
      [
        { at: 5, press: "act" },
        { at: 4, release: "act" },
      ],
      /entry 1: It is at 4 ms, but the entry before it is at 5 ms/,
    ],
    ["names what is not there", [{ at: 0, press: "fly" }], /entry 0: The behaviour has no input "fly"\. It has: act, lamp, speed/],
    ["presses a number", [{ at: 0, press: "speed" }], /"speed" is a number, so it cannot take this/],
    ["sets a button", [{ at: 0, set: { act: true } }], /"act" is a button, so it cannot take this/],
    ["sets a switch to a number", [{ at: 0, set: { lamp: 1 } }], /"lamp" is a switch/],
    ["sets text", [{ at: 0, set: { speed: "fast" } }], /entry 0/],
    ["sets what is not finite", [{ at: 0, set: { speed: Number.POSITIVE_INFINITY } }], /entry 0/],
    ["looks nowhere", [{ at: 0, face: "up" }], /entry 0/],
    ["does two things in one entry", [{ at: 0, press: "act", face: "e" }], /entry 0/],
    ["has no time", [{ press: "act" }], /entry 0/],
    ["has nothing in its place", [null], /entry 0/],
  ])("that %s is refused with the place", (_what, content, message) => expect(check(content)).toThrow(message));
});
