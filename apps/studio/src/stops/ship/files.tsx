"use client";

import type { NamedFile } from "@caravan/core/codec";
import { isContactPath } from "@caravan/core/delivery-plan";
import { useEffect, useState } from "react";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { sizeInWords } from "../../ui/files";
import { SheetDialog } from "../../ui/sheet-dialog";
import { t } from "../../ui/words";
import { useCurrentBuild } from "./build";

/** Lists the delivered files. Contact sheets, which are for people, can be previewed here. */
export function Files() {
  const build = useCurrentBuild();
  const [seen, setSeen] = useState<NamedFile | null>(null);
  if (build.kind !== "built")
    return (
      <Detail title={t("Files")}>
        <p className="text-muted">{t("Listed after packing.")}</p>
      </Detail>
    );
  return (
    <Detail title={t("Files")}>
      <ul aria-label={t("Files")}>
        {build.delivered.files.map((file) => (
          <li key={file.path} className="flex items-center justify-between gap-3 py-0.5">
            <span className="truncate">{file.path}</span>
            {isContactPath(file.path) && (
              <Button className="ml-auto" onClick={() => setSeen(file)} aria-label={t("Preview {path}", { path: file.path })}>
                {t("Preview")}
              </Button>
            )}
            <span className="number shrink-0 text-muted">{sizeInWords(file.bytes.length)}</span>
          </li>
        ))}
      </ul>
      <SheetDialog title={seen?.path ?? ""} description={t("As it is delivered.")} open={seen !== null} onClose={() => setSeen(null)}>
        {seen && <Shown file={seen} />}
      </SheetDialog>
    </Detail>
  );
}

function Shown({ file }: { file: NamedFile }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(new Blob([file.bytes as Uint8Array<ArrayBuffer>], { type: "image/png" }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [file]);
  // biome-ignore lint/performance/noImgElement: a picture made in this page, of which no server knows
  return url && <img src={url} alt={t("Every clip with its steps and times, then the frames in no clip.")} className="w-full" />;
}
