"use client";

import type { ReactNode } from "react";
import { saveNow } from "../project/autosave";
import { useOpenProject } from "../project/open-project";
import { workHere } from "../project/projects";
import { Button } from "../ui/button";
import { saveAsFile } from "./commands";

/** States that last and that a person must know of: looking on, and not saved. */
export function Banners() {
  const reader = useOpenProject((open) => open.access === "reader");
  const saving = useOpenProject((open) => open.saving);
  const retry = () => {
    useOpenProject.setState({ saving: { kind: "pending" } });
    void saveNow();
  };
  return (
    <div aria-live="assertive">
      {reader && (
        <Banner text="This project is open in another tab. Here you can look, but not change anything.">
          <Button look="now" onClick={() => void workHere()}>
            Work here instead
          </Button>
        </Banner>
      )}
      {saving.kind === "failed" && (
        <Banner
          text={`${saving.reason} Your work is still here: save it to a file now${saving.full ? ", then remove projects you no longer need" : ""}.`}
        >
          <Button look="now" onClick={() => void saveAsFile()}>
            Save to a file
          </Button>
          <Button onClick={retry}>Try again</Button>
        </Banner>
      )}
    </div>
  );
}

function Banner({ text, children }: { text: string; children: ReactNode }) {
  return (
    <div className="flex items-center gap-3 border-b border-brick bg-brick-soft px-4 py-2">
      <p className="grow">{text}</p>
      {children}
    </div>
  );
}
