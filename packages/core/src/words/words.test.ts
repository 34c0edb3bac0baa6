import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";
import { afterEach, describe, expect, it } from "vitest";
import { counted } from "../model";
import { speak, t } from ".";

afterEach(() => speak({}));

describe("a text", () => {
  it("is itself in English, with its gaps filled", () => {
    expect(t("Add pictures")).toBe("Add pictures");
    expect(t("{frames} in {clip}", { frames: 3, clip: "walk" })).toBe("3 in walk");
  });

  it("is another language's text, which may order the gaps differently and need not cover all texts", () => {
    speak({
      "{frames} in {clip}": "{clip}: {frames}",
      Undo: "Zurück",
      "{count} frame": "{count} Bild",
      "{count} frames": "{count} Bilder",
    });
    expect(t("{frames} in {clip}", { frames: counted(3, "frame"), clip: "walk" })).toBe("walk: 3 Bilder");
    expect(counted(1, "frame")).toBe("1 Bild");
    expect(t("Undo")).toBe("Zurück");
    expect(t("Redo")).toBe("Redo");
  });

  it("inserts values literally, even if they look like a gap or have names of object members", () => {
    expect(t("Opened {name}.", { name: "{name} $1 __proto__" })).toBe("Opened {name} $1 __proto__.");
    expect(t("constructor")).toBe("constructor");
  });

  it("does not compile with a gap that is not filled, or filled by a name it does not have", () => {
    // @ts-expect-error -- the clip is missing.
    t("{frames} in {clip}", { frames: 3 });
    // @ts-expect-error -- nothing to fill.
    t("Undo", { name: "x" });
  });
});

const CORE = join(import.meta.dirname, "..");
/** What a game ships speaks to programmers, and brings no catalogue along. */
const SHIPPED = new Set(["playback", "behave", "parts", "similar"]);
/** Properties of findings and proposals that people read. */
const READ = new Set(["message", "label", "remedy", "what", "why"]);

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) return SHIPPED.has(entry.name) ? [] : sources(join(folder, entry.name));
    // The names of an example's fields are a table; the screen translates them where it shows them.
    if (entry.name === "quantities.ts") return [];
    return /(?<!\.(test|fixture|cases))\.ts$/.test(entry.name) ? [join(folder, entry.name)] : [];
  });
}

/** Sentences of errors, findings and undo that stand outside of `t`. */
function untold(path: string): string[] {
  const file = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isParenthesizedExpression(node)) look(node.expression);
    else if (ts.isArrowFunction(node) && !ts.isBlock(node.body)) look(node.body);
    else if (ts.isConditionalExpression(node)) [node.whenTrue, node.whenFalse].forEach(look);
    else if (ts.isStringLiteralLike(node) || ts.isTemplateExpression(node)) {
      const { line } = file.getLineAndCharacterOfPosition(node.getStart());
      if (/[a-z]{2,} [a-z]{2,}/i.test(node.getText())) found.push(`${relative(CORE, path)}:${line + 1} ${node.getText()}`);
    }
  };
  const visit = (node: ts.Node): void => {
    if (ts.isNewExpression(node) && node.expression.getText() === "CaravanError") node.arguments?.slice(1, 4).forEach(look);
    if (ts.isCallExpression(node) && node.expression.getText() === "edit" && node.arguments[0]) look(node.arguments[0]);
    // What a schema says of a file is made once, before anybody has chosen a language.
    if (ts.isCallExpression(node) && /\.refine$/.test(node.expression.getText())) return;
    if (ts.isPropertyAssignment(node) && READ.has(node.name.getText())) look(node.initializer);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

it("every error, finding and name of an edit goes through the catalogue", () => {
  expect(sources(CORE).flatMap(untold)).toEqual([]);
});
