/** Keeps reports of internal errors until the person has saved or dismissed them. */
import { type Project, projectToFile } from "@caravan/core/model";
import { create } from "zustand";
import { saveFile } from "../ui/files";

export interface Report {
  /** What was being done. */
  readonly what: string;
  readonly why: string;
  readonly before: Project;
  readonly after: Project;
}

export const useReports = create<{ readonly report: Report | null }>(() => ({ report: null }));

export function noteReport(report: Report): void {
  useReports.setState({ report });
}

export function dismissReport(): void {
  useReports.setState({ report: null });
}

/** Hands the report to the person as a file: what was done, why it was refused, and the document before and after. */
export function saveReport({ what, why, before, after }: Report): void {
  const content = { what, why, at: new Date().toISOString(), before: projectToFile(before), after: projectToFile(after) };
  saveFile("caravan-report.json", new TextEncoder().encode(`${JSON.stringify(content, null, 1)}\n`), "application/json");
}
