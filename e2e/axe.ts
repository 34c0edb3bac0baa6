import AxeBuilder from "@axe-core/playwright";
import type { Page } from "./fixtures";

/**
 * Lists what axe finds on the page or a part of it, each with its place. It runs in the page itself: with no foreign frames, axe need not
 * open a page for each run.
 */
export async function violationsOn(page: Page, { part, rules }: { part?: string | undefined; rules?: string[] } = {}): Promise<string[]> {
  let axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ["violations"] });
  if (part) axe = axe.include(part);
  if (rules) axe = axe.withRules(rules);
  const { violations } = await axe.analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(" | ")}`);
}
