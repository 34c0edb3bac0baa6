/** Files that go through the review of an import, and what a game gets of their clips. */
import { expect, type Page } from "./fixtures";
import { delivered, dropFiles, type UploadedFile } from "./studio";

export const review = (page: Page) => page.getByRole("dialog", { name: "Import review" });

export async function taken(page: Page, file: UploadedFile): Promise<void> {
  await dropFiles(page, [file]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(review(page)).toBeHidden();
}

/** What a game would play, in milliseconds for each step. */
export async function played(page: Page): Promise<Record<string, number[]>> {
  const { atlas } = await delivered(page);
  return Object.fromEntries(Object.entries(atlas.clips).map(([name, { steps }]) => [name, steps.map(({ ms }) => ms)]));
}
