"use client";

import type { Source } from "@caravan/core/model";
import { useEffect } from "react";
import { takeInAndGo } from "../../project/import-later";
import { useLinkedFolder } from "../../project/linked/linked";
import { chooseFile, followRenamed, leaveFresh, lookAgain, unlinkFolder } from "../../project/linked/linked-folder";
import { seeChanged } from "../../project/linked/review-changed";
import { alternatives } from "../../project/linked/unclear";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { inBackground } from "../../ui/in-background";
import { Select } from "../../ui/select";
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
  const unclear = sources.find(({ id }) => linked.unclear.has(id));
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
        {unclear && !locked && (
          <>
            {" "}
            {linked.unclear.size === 1
              ? t("Several files could be {name}: until you choose, none is followed.", { name: unclear.name })
              : t("Several files could be {name}, and {others} more sources have several, too: until you choose, none is followed.", {
                  ...{ name: unclear.name, others: linked.unclear.size - 1 },
                })}
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
          {unclear && <FileChoice key={unclear.id} source={unclear} paths={alternatives(linked.unclear.get(unclear.id) ?? [])} />}
          {first && <Button onClick={followRenamed}>{renamed.size === 1 ? t("Follow it") : t("Follow them")}</Button>}
          {fresh.length > 0 && (
            <>
              <Button once onClick={() => inBackground(takeInAndGo([...fresh, ...texts]))}>
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

/** Lets the person say which of several files has a source's art. */
function FileChoice({ source, paths }: { source: Source; paths: readonly string[] }) {
  return (
    <Select<string>
      label={t("File of {name}", { name: source.name })}
      className="max-w-60"
      value={null}
      placeholder={t("Choose its file")}
      options={[...paths.map((path) => [path, path] as const), ["", t("None of these")] as const]}
      onChange={(path) => inBackground(chooseFile(source, path === "" ? null : path))}
    />
  );
}
