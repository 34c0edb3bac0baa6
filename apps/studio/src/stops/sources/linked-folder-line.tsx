"use client";

import { useEffect } from "react";
import { takeInAndGo } from "../../project/import-later";
import { useLinkedFolder } from "../../project/linked/linked";
import { followRenamed, leaveFresh, lookAgain, unlinkFolder } from "../../project/linked/linked-folder";
import { seeChanged } from "../../project/linked/review-changed";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { inBackground } from "../../ui/in-background";
import { t } from "../../ui/words";

/** Shows the linked art folder: what changed there and what is new. */
export function LinkedFolderLine() {
  const linked = useLinkedFolder((state) => state.linked);
  const sources = useProject((project) => project.sources);
  // What has just come in from there is no news any more.
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again when the sources change
  useEffect(() => inBackground(lookAgain()), [sources]);
  if (!linked) return null;
  const { name, locked, matched, changed, fresh, texts, renamed, home } = linked;
  const [first] = renamed;
  const facts = { matched, count: sources.length, changed: changed.length > 0 ? changed.length : t("none") };
  return (
    <section
      aria-label={t("Linked folder")}
      className={`flex flex-wrap items-center gap-2 rounded-box border border-l-4 border-line bg-raised px-3 py-1.5 ${changed.length > 0 || first ? "border-l-now" : "border-l-lapis"}`}
    >
      <p className="grow">
        <strong>{name}</strong>{" "}
        {locked
          ? t("is linked; the browser asks for permission to read it again.")
          : home
            ? t("keeps the project: {matched} of {count} sources have their art in it, {changed} changed.", facts)
            : t("is linked: {matched} of {count} sources have their art in it, {changed} changed.", facts)}
        {first && (
          <>
            {" "}
            {renamed.size === 1
              ? t("{from} is called {to} there now.", { from: first[0], to: first[1] })
              : t("{count} files have other names there now.", { count: renamed.size })}
          </>
        )}
      </p>
      {locked ? (
        <Button look="now" onClick={() => inBackground(lookAgain(true))}>
          {t("Look again")}
        </Button>
      ) : (
        <>
          {changed.length > 0 && (
            <Button look="now" onClick={seeChanged}>
              {t("See what changed")}
            </Button>
          )}
          {first && <Button onClick={followRenamed}>{renamed.size === 1 ? t("Follow it") : t("Follow them")}</Button>}
          {fresh.length > 0 && (
            <>
              <Button onClick={() => inBackground(takeInAndGo([...fresh, ...texts]))}>
                {fresh.length === 1
                  ? t("Import {count} new picture", { count: fresh.length })
                  : t("Import {count} new pictures", { count: fresh.length })}
              </Button>
              <Button look="quiet" onClick={() => inBackground(leaveFresh())}>
                {fresh.length === 1 ? t("Ignore it") : t("Ignore them")}
              </Button>
            </>
          )}
          <Button onClick={() => inBackground(lookAgain())}>{t("Look again")}</Button>
        </>
      )}
      {!home && (
        <Button look="quiet" onClick={() => inBackground(unlinkFolder())}>
          {t("Unlink")}
        </Button>
      )}
    </section>
  );
}
