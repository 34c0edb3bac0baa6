"use client";

import { useLeaving } from "../project/leaving";
import { Button } from "../ui/button";
import { SheetDialog } from "../ui/sheet-dialog";
import { t } from "../ui/words";
import { savedAsFile } from "./commands";

/** Asks before leaving a project whose changes could not be saved: save to a file, discard, or stay. */
export function LeavingDialog() {
  const question = useLeaving((state) => state.question);
  if (!question) return null;
  const { name, why, answer } = question;
  const toFile = async () => {
    if (await savedAsFile()) answer("discard");
  };
  return (
    <SheetDialog title={t("{name} has unsaved changes", { name })} description={why} open onClose={() => answer("stay")}>
      <p className="mb-4">{t("If you leave now, changes since the last save are lost, unless you save the project to a file.")}</p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => answer("discard")}>{t("Discard the changes")}</Button>
        <Button onClick={() => answer("stay")}>{t("Stay here")}</Button>
        <Button look="now" autoFocus onClick={() => void toFile()}>
          {t("Save to a file")}
        </Button>
      </div>
    </SheetDialog>
  );
}
