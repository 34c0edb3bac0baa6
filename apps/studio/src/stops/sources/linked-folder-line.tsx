"use client";

import { useEffect } from "react";
import { leaveFresh, lookAgain, seeChanged, unlinkFolder, useLinkedFolder } from "../../project/linked/linked-folder";
import { useProject } from "../../project/open-project";
import { takeInAndGo } from "../../project/take-in";
import { Button } from "../../ui/button";
import { inBackground } from "../../ui/in-background";

/** The folder that the art comes from: what changed there and what is new. */
export function LinkedFolderLine() {
  const linked = useLinkedFolder((state) => state.linked);
  const sources = useProject((project) => project.sources);
  // What has just come in from there is no news any more.
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again when the sources change
  useEffect(() => inBackground(lookAgain()), [sources]);
  if (!linked) return null;
  const { name, locked, matched, changed, fresh, home } = linked;
  return (
    <section
      aria-label="Linked folder"
      className={`flex flex-wrap items-center gap-2 rounded-box border border-l-4 border-line bg-raised px-3 py-1.5 ${changed.length > 0 ? "border-l-now" : "border-l-lapis"}`}
    >
      <p className="grow">
        <strong>{name}</strong>{" "}
        {locked
          ? "is linked; the browser wants your leave to look into it again."
          : `${home ? "keeps the project" : "is linked"}: ${matched} of ${sources.length} sources have their art in it${changed.length > 0 ? `, ${changed.length} changed` : ", none changed"}.`}
      </p>
      {locked ? (
        <Button look="now" onClick={() => inBackground(lookAgain(true))}>
          Look again
        </Button>
      ) : (
        <>
          {changed.length > 0 && (
            <Button look="now" onClick={seeChanged}>
              See what changed
            </Button>
          )}
          {fresh.length > 0 && (
            <>
              <Button onClick={() => inBackground(takeInAndGo(fresh))}>
                Import {fresh.length} new {fresh.length === 1 ? "picture" : "pictures"}
              </Button>
              <Button look="quiet" onClick={() => inBackground(leaveFresh())}>
                Leave {fresh.length === 1 ? "it" : "them"}
              </Button>
            </>
          )}
          <Button onClick={() => inBackground(lookAgain())}>Look again</Button>
        </>
      )}
      {!home && (
        <Button look="quiet" onClick={() => inBackground(unlinkFolder())}>
          Unlink
        </Button>
      )}
    </section>
  );
}
