import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";
import { describe, expect, it } from "vitest";
import { facts, listInWords, nameAnd } from "./words";

describe("short texts", () => {
  it("are joined if they apply", () => {
    expect(facts("64 frames", false, 0, undefined, "2 px over")).toBe("64 frames · 0 · 2 px over");
    expect(nameAnd("walk/3", null, "dropped", "")).toBe("walk/3, dropped");
    expect(nameAnd("walk/3")).toBe("walk/3");
    expect(listInWords(["walk", "idle", "run"], 2)).toBe("walk, idle and 1 more");
    expect(listInWords(["walk", "idle"], 2)).toBe("walk, idle");
  });
});

/** Attributes and properties that are read by people. */
const READ = new Set(["word", "label", "title", "aria-label", "placeholder", "description", "aside", "text", "none", "aria-valuetext"]);
/** Gaps of patterns, as `{source}/{n}`, are no words. */
const hasWords = (text: string): boolean => /[a-z]{2,}/i.test(text.replaceAll(/\{\w+\}/g, "")) && !NAMES.has(text);
/** Read alike in every language. */
const NAMES = new Set(["px", "TypeScript", "JavaScript"]);

/** What is read of the pairs in an attribute: the first of facts, the second of options. */
function pairsIn(attribute: ts.JsxAttribute): ts.Node[] {
  const list = attribute.initializer && ts.isJsxExpression(attribute.initializer) ? attribute.initializer.expression : undefined;
  if (!list || !ts.isArrayLiteralExpression(list)) return [];
  const read = attribute.name.getText() === "facts" ? 0 : 1;
  return list.elements.flatMap((pair) => (ts.isArrayLiteralExpression(pair) ? (pair.elements[read] ?? []) : []));
}

/** Text of a source file that people read and that stands outside of `t`. */
function untold(path: string): string[] {
  const file = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const tell = (node: ts.Node) => {
    const { line } = file.getLineAndCharacterOfPosition(node.getStart());
    found.push(`${relative(STUDIO, path)}:${line + 1} ${node.getText().trim()}`);
  };
  /** What may be shown as it stands: both ways of a choice, and what a template says between its values. */
  const look = (node: ts.Node): void => {
    if (ts.isParenthesizedExpression(node)) look(node.expression);
    else if (ts.isConditionalExpression(node)) [node.whenTrue, node.whenFalse].forEach(look);
    else if (ts.isStringLiteralLike(node)) hasWords(node.text) && tell(node);
    else if (ts.isTemplateExpression(node)) {
      const said = [node.head, ...node.templateSpans.map(({ literal }) => literal)].map(({ text }) => text.replaceAll(/\bpx\b/g, ""));
      if (said.some(hasWords)) tell(node);
    }
  };
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node) && hasWords(node.text)) tell(node);
    if (ts.isJsxExpression(node) && node.expression && (ts.isJsxElement(node.parent) || ts.isJsxFragment(node.parent)))
      look(node.expression);
    if (ts.isJsxAttribute(node) && READ.has(node.name.getText()) && node.initializer)
      look(ts.isJsxExpression(node.initializer) && node.initializer.expression ? node.initializer.expression : node.initializer);
    if (ts.isPropertyAssignment(node) && READ.has(node.name.getText())) look(node.initializer);
    // Tables of words, by key.
    if (ts.isVariableDeclaration(node) && /(^|_)(WORDS|HELP|TITLES|USES|FED)$/.test(node.name.getText()) && node.initializer)
      ts.forEachChild(node.initializer, (entry) => {
        if (ts.isPropertyAssignment(entry)) look(entry.initializer);
      });
    // Errors say where something failed, what and what to do.
    if (ts.isNewExpression(node) && node.expression.getText() === "CaravanError") node.arguments?.slice(1, 4).forEach(look);
    // Facts and options: pairs of a key and words, or of words and a value.
    if (ts.isJsxAttribute(node) && ["facts", "options"].includes(node.name.getText())) pairsIn(node).forEach(look);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** Texts that are pieces of a sentence joined elsewhere: another language could not order them differently. */
function pieces(path: string): string[] {
  const file = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && ["t", "withParts"].includes(node.expression.getText())) {
      const [text] = node.arguments;
      if (text && ts.isStringLiteralLike(text) && /^[\s,;.:)·]|\s$/.test(text.text))
        found.push(`${relative(STUDIO, path)} ${text.getText()}`);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

const STUDIO = join(import.meta.dirname, "..");
const FILES = readdirSync(STUDIO, { recursive: true, encoding: "utf8" })
  .filter((name) => /\.tsx?$/.test(name) && !/\.test\.|fixture|^(server|offline)\//.test(name))
  .map((name) => join(STUDIO, name));

it("all visible text goes through `t`", () => {
  expect(FILES.length).toBeGreaterThan(100);
  expect(FILES.flatMap(untold)).toEqual([]);
});

it("no text is a piece of a sentence", () => {
  expect(FILES.flatMap(pieces)).toEqual([]);
});
