import { describe, expect, it } from "vitest";
import { locate } from "./locate";
import { placeAt } from "./place";

const TEXTS: Record<string, string> = {
  json: '{ "a.b": [1, 2.50, "3"], "frames": {"x.png": {"at": "{{1,2},{3,4}}", "turned": false, "note": null}}, "empty": [] }',
  xml: `<?xml version="1.0"?>\n<!-- a <remark> -->\n<sheet file='he"ro.png' n="3">\n <part a="1"/><part a="2 &amp; 3">text</part><only><x>4</x><y> 5 </y></only><blank/></sheet>`,
  pairs: "<p><dict><key>one</key><true/><key>two</key><dict><key>at</key><string>{1, 2}</string></dict></dict></p>",
  "table with heads": '# remark\nname;x;y\n"a;b";1;2\n\nc;3;4',
  "table without heads": "a\t1\t2\nb\t3\t4",
  sections: '; remark\nscale = 2\n[a one]\nx = 1\nname = "quoted"\n\n[b]\nat: 3, 4\n[b]\nx=5',
  yaml: '# remark\na: 1\nlist:\n  - name: one\n    at: [2, 3.5]   # here\n  - {name: "two: 2", at: [4, 5]}\n\nlast: its\nnone: null',
  "indented lines": "hero.png\n  size: 12, 9\nfirst\n  x: 4\n  y: 5",
};

describe("every value of a text is found at its place", () => {
  it.each(Object.entries(TEXTS))("%s", (_name, text) => {
    const { root } = locate(text, "t");
    let found = 0;
    const visit = (place: typeof root) => {
      if (place.value) {
        found++;
        const { from, to, means, as } = place.value;
        const raw = text.trim().slice(from, to);
        if (typeof means === "number") expect(Number(raw.replaceAll('"', ""))).toBe(means);
        else if (as !== "json" && as !== "flag") expect(raw.replace("&amp;", "&").replace(/^"(.*)"$/, "$1")).toBe(String(means));
      }
      for (const child of place.children.values()) visit(child);
    };
    visit(root);
    expect(found).toBeGreaterThanOrEqual(3);
  });

  it("keys with dots in them", () => {
    const { root, text } = locate(TEXTS.json as string, "t");
    const at = placeAt(root, "frames.x.png.at.2")?.value;
    expect(at && text.slice(at.from, at.to)).toBe("3");
    expect(placeAt(root, "frames.y.png")).toBeNull();
  });

  it("a text whose places are unsure is refused, not guessed at", () => {
    expect(() => locate('{"a": {"x": 1}, "a": {"x": 2}, "b": 3}', "twice.json")).toThrow(
      /twice\.json: It can be read, but its values cannot be located/,
    );
    expect(() => locate("<a><b>one<c x='1'/>two</b></a>", "mixed.xml")).not.toThrow();
    expect(() => locate('<a><b n="1">one<c x="1"/>two</b></a>', "mixed.xml")).toThrow(
      /mixed\.xml: It can be read, but its values cannot be located/,
    );
  });
});
