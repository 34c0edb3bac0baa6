"use client";

import { useMemo } from "react";
import { useHome } from "../project/home/home-state";
import { type Answer, comparedWith, takeOutside } from "../project/home/outside";
import { useProject } from "../project/open-project";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { SheetDialog } from "../ui/sheet-dialog";
import { t } from "../ui/words";

/** Shows what somebody else changed in the project's folder, beside the changes made here, with the ways to resolve them. */
export function OutsideDialog({ onClose }: { onClose: () => void }) {
  const home = useHome((state) => state.home);
  const project = useProject((each) => each);
  const outside = home?.state.kind === "changed" ? home.state.outside : null;
  const compared = useMemo(() => outside && comparedWith(outside, project), [outside, project]);
  if (!home || !compared) return null;
  const { theirs, ours, both, why } = compared;
  const answer = (choice: Answer) => {
    onClose();
    inBackground(takeOutside(choice));
  };
  return (
    <SheetDialog
      title={t("caravan.json in {folder} was changed outside", { folder: home.folder })}
      description={t("Nothing is written there until you have decided. You can undo what you choose here.")}
      open
      onClose={onClose}
    >
      <div className="flex flex-col gap-3">
        <Differences title={t("In {folder}", { folder: home.folder })} list={theirs} none={t("Formatting only.")} />
        <Differences title={t("Here, since then")} list={ours} none={t("Nothing.")} />
        {ours.length > 0 && both && both.conflicts.length > 0 && <Differences title={t("Conflicts")} list={both.conflicts} none="" />}
        {why !== null && <p className="text-brick">{why}</p>}
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={onClose}>{t("Decide later")}</Button>
          <Button onClick={() => answer("mine")}>{t("Overwrite with mine")}</Button>
          {ours.length > 0 && <Button onClick={() => answer("theirs")}>{t("Use theirs only")}</Button>}
          {ours.length === 0 ? (
            <Button look="now" autoFocus onClick={() => answer("theirs")}>
              {t("Use theirs")}
            </Button>
          ) : (
            both && (
              <Button look="now" autoFocus onClick={() => answer("both")}>
                {t("Merge both")}
              </Button>
            )
          )}
        </div>
      </div>
    </SheetDialog>
  );
}

/** As many lines as are read at once. */
const MOST_LINES = 12;

function Differences({ title, list, none }: { title: string; list: readonly string[]; none: string }) {
  const more = list.length - MOST_LINES;
  return (
    <section aria-label={title}>
      <h3 className="font-semibold text-muted">{title}</h3>
      {list.length === 0 ? (
        <p>{none}</p>
      ) : (
        <ul className="list-inside list-disc">
          {list.slice(0, MOST_LINES).map((line) => (
            <li key={line}>{line}</li>
          ))}
          {more > 0 && <li>{t("and {more} more", { more })}</li>}
        </ul>
      )}
    </section>
  );
}
