import { counted } from "@caravan/core/model";
import { saveFile, sizeInWords } from "../../ui/files";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import type { Delivered } from "../../workers/jobs";

/** Downloads the delivered files as one ZIP. */
export async function deliverAsZip(name: string, delivered: Delivered): Promise<void> {
  try {
    // The files stay here to be shown; the worker gets a copy.
    const zip = await run("zip", { files: delivered.files });
    saveFile(`${name}.zip`, zip, "application/zip");
    say({
      tone: "good",
      text: t("Delivered {name}.zip: {files}, {size}.", {
        name,
        files: counted(delivered.files.length, "file"),
        size: sizeInWords(zip.length),
      }),
    });
  } catch (error) {
    sayTrouble(error);
  }
}
