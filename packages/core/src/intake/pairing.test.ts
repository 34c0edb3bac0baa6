import { describe, expect, it } from "vitest";
import { withoutOthersRecords } from "./pairing";

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
