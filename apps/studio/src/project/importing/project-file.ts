/** Opens `*.caravan` files; of damaged ones what is left, if the person wants that. */
import type { CaravanError, ErrorCode } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say } from "../../ui/notices";
import { listInWords, t } from "../../ui/words";
import { run } from "../../workers/client";
import { importBundle, importRemains, openProject } from "../projects";
import { asCaravanError, noteFailed } from "./read-files";

/** What a file may be refused for that still has something in it. */
const DAMAGED: ReadonlySet<ErrorCode> = new Set<ErrorCode>(["damaged-project", "missing-picture", "picture-mismatch"]);

/** So many losses are named. */
const MOST_LISTED = 6;

export async function openProjectFile(file: File): Promise<void> {
  try {
    if (await openProject(await importBundle(file, file.name)))
      say({ tone: "good", text: t("Opened {name} as a project of its own.", { name: file.name }) });
  } catch (error) {
    const problem = asCaravanError(error, file.name);
    if (await hasRemains(file, problem)) offerRemains(file, problem);
    else noteFailed([{ file, error: problem }]);
  }
}

async function hasRemains(file: File, { code }: CaravanError): Promise<boolean> {
  return DAMAGED.has(code) && (await run("salvageBundle", { name: file.name, blob: file }).catch(() => null)) !== null;
}

function offerRemains(file: File, problem: CaravanError): void {
  const open = () => inBackground(openRemains(file));
  say({ tone: "trouble", text: problem.message, action: { label: t("Open what is left of it"), run: open } });
}

async function openRemains(file: File): Promise<void> {
  const found = await importRemains(file, file.name);
  if (!found || !(await openProject(found.id))) return;
  const { name } = file;
  const text =
    found.lost.length === 0
      ? t("Opened {name} as a project of its own: nothing of it was lost.", { name })
      : t("Opened {name} as a project of its own, without {lost}. The file stays as it is.", {
          name,
          lost: listInWords(found.lost, MOST_LISTED),
        });
  say({ tone: "plain", text });
}
