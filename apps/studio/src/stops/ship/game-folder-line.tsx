"use client";

import { useEffect, useState } from "react";
import { linkGameFolder, removeLeft, unlinkGameFolder, useOutlets } from "../../project/delivering/game-folder";
import { canLinkFolders } from "../../project/linked/folder";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { sayTrouble } from "../../ui/notices";
import { withParts } from "../../ui/rich-words";
import { t } from "../../ui/words";

/** Shows the game folder of a delivery, and what earlier deliveries left there. */
export function GameFolder({ delivery }: { delivery: string }) {
  const outlet = useOutlets(({ outlets }) => outlets.get(delivery));
  // Only the browser knows, and the first render must match the server's.
  const [canLink, setCanLink] = useState(false);
  useEffect(() => setCanLink(canLinkFolders()), []);
  const link = () => inBackground(linkGameFolder(delivery).catch((error: unknown) => sayTrouble(error)));
  return (
    <Detail title={t("Game folder")}>
      {outlet ? (
        <>
          <p>{withParts("Delivers into {folder}; writes changed files only.", { folder: <strong>{outlet.folder}</strong> })}</p>
          {outlet.left.length > 0 && (
            <div className="mt-1.5 rounded-box border border-l-4 border-line border-l-lapis p-2">
              <p className="text-small">{t("No longer delivered, but still there:")}</p>
              <ul aria-label={t("No longer delivered")} className="number max-h-24 overflow-y-auto text-small">
                {outlet.left.map((path) => (
                  <li key={path} className="truncate">
                    {path}
                  </li>
                ))}
              </ul>
              <Button className="mt-1" onClick={() => inBackground(removeLeft(delivery))}>
                {t("Remove them there")}
              </Button>
            </div>
          )}
          <div className="mt-1.5 flex flex-wrap gap-1.5">
            <Button onClick={link}>{t("Another folder")}</Button>
            <Button onClick={() => inBackground(unlinkGameFolder(delivery))}>{t("Unlink")}</Button>
          </div>
        </>
      ) : (
        <>
          <p className="mb-1.5 text-small text-muted">
            {canLink
              ? t("Link the folder that the game loads from: Shift+D then delivers into it from any stop.")
              : t("This browser cannot write into folders; take the ZIP, or use the command line.")}
          </p>
          {canLink && <Button onClick={link}>{t("Link the game's folder")}</Button>}
        </>
      )}
    </Detail>
  );
}
