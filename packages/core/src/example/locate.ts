import { type Container, type ParsedMetadata, parseAs, parseMetadata, problem } from "../notation";
import { t } from "../words";
import { type Place, sameTree, treeOf } from "./place";
import { placesInJson } from "./places-json";
import { placesInSections, placesInTable } from "./places-lines";
import { placesInXml } from "./places-xml";
import { placesInYaml } from "./places-yaml";

/** A text, its content, and where each value stands in it. */
export interface Located {
  /** Without a byte order mark and blanks at its ends. */
  readonly text: string;
  readonly parsed: ParsedMetadata;
  readonly root: Place;
}

/** Throws `bad-metadata` if the text is not metadata, or if its values cannot be located reliably. `where` names the file. */
export function locate(content: string, where: string, container?: Container): Located {
  const text = content.replace(/^\uFEFF/, "").trim();
  const parsed = container === undefined ? parseMetadata(text, where) : parseAs(container, text, where);
  if (!WRITABLE.has(parsed.container))
    throw problem(
      where,
      t("It was read as a repeating pattern, which cannot be written."),
      t("Give an example in JSON, XML, YAML, a table with separators, or sections of lines."),
    );
  const root = placesOf(text, parsed);
  if (!root || !sameTree(treeOf(root), parsed.tree))
    throw problem(
      where,
      t("It can be read, but its values cannot be located one by one, so nothing can be written in its shape."),
      t("Remove what is unusual (text between elements, a duplicate key, an open quote) and try again."),
    );
  return { text, parsed, root };
}

const WRITABLE: ReadonlySet<Container> = new Set(["json", "xml", "yaml", "sections", "table"]);

function placesOf(text: string, { container }: ParsedMetadata): Place | null {
  switch (container) {
    case "json":
      return placesInJson(text);
    case "xml":
      return placesInXml(text);
    case "sections":
      return placesInSections(text);
    case "table":
      return placesInTable(text);
    case "yaml":
      return placesInYaml(text);
    default:
      return null;
  }
}
