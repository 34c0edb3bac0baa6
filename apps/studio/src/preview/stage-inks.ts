/** Reads the interface's colours from the page, for painting on canvases. */
export interface StageInks {
  readonly ink: string;
  readonly before: string;
  readonly after: string;
  /** For the selection. */
  readonly now: string;
}

export function stageInks(element: Element): StageInks {
  const style = getComputedStyle(element);
  return {
    ink: style.color,
    before: style.getPropertyValue("--ghost-before"),
    after: style.getPropertyValue("--ghost-after"),
    now: style.getPropertyValue("--now"),
  };
}
