import { describe, expect, it } from "vitest";
import { describedBy, withoutOthersRecords } from "./pairing";

describe("the pictures that a file describes", () => {
  const [joined, apart] = ["h\u00e9ros", "he\u0301ros"];

  it("are found by names with accents joined or apart, inside or outside of it", () => {
    expect(describedBy("all.json", `{"image": "${joined}.png"}`, [`${apart}.png`, "well.png"])).toEqual([`${apart}.png`]);
    expect(describedBy("all.json", '{"image": "h\\u00e9ros.png"}', [`${apart}.png`, "well.png"])).toEqual([`${apart}.png`]);
    expect(describedBy(`${joined}.json`, "{}", [`art/${apart}.png`, "well.png"])).toEqual([`art/${apart}.png`]);
  });

  it("are not those whose name only ends another name in it", () => {
    const pictures = ["hero.png", "superhero.png"];
    expect(describedBy("all.json", '{"image": "superhero.png"}', pictures)).toEqual(["superhero.png"]);
    expect(describedBy("all.json", '{"images": ["hero.png", "superhero.png"]}', pictures)).toEqual(pictures);
  });
});

describe("one file that describes several pictures", () => {
  const unplaced = [
    { where: "cells.0", why: "", on: "people/Porter" },
    { where: "cells.1", why: "", on: "camel.png" },
    { where: "cells.2", why: "", on: "well.png" },
    { where: "cells.3", why: "" },
  ];

  it("has no misfits on pictures that came along, however it writes their names", () => {
    const left = withoutOthersRecords({ unplaced }, ["art/porter.png", "art/camel.png"]);
    expect(left.unplaced.map(({ where }) => where)).toEqual(["cells.2", "cells.3"]);
  });
});
