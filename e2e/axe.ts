import AxeBuilder from "@axe-core/playwright";
import type { Page } from "./fixtures";

/**
 * What axe finds wrong on the page, or on a part of it, each with where. Run in the page itself: there are no frames of others, for which
 * axe would open a page of its own each time.
 */
export async function violationsOn(page: Page, { part, rules }: { part?: string | undefined; rules?: string[] } = {}): Promise<string[]> {
  let axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ["violations"] });
  if (part) axe = axe.include(part);
  if (rules) axe = axe.withRules(rules);
  const { violations } = await axe.analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(" | ")}`);
}
