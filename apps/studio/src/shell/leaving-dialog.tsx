"use client";

import { useLeaving } from "../project/leaving";
import { Button } from "../ui/button";
import { SheetDialog } from "../ui/sheet-dialog";
import { savedAsFile } from "./commands";

/** Before a project with changes that could not be saved is left: to a file, dropped, or not left at all. */
export function LeavingDialog() {
  const question = useLeaving((state) => state.question);
  if (!question) return null;
  const { name, why, answer } = question;
  const toFile = async () => {
    if (await savedAsFile()) answer("discard");
  };
  return (
    <SheetDialog title={`${name} has unsaved changes`} description={why} open onClose={() => answer("stay")}>
      <p className="mb-4">If you leave it now, what was changed since it was last saved is lost, unless you save it to a file.</p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button onClick={() => answer("discard")}>Discard the changes</Button>
        <Button onClick={() => answer("stay")}>Stay here</Button>
        <Button look="now" autoFocus onClick={() => void toFile()}>
          Save to a file
        </Button>
      </div>
    </SheetDialog>
  );
}
