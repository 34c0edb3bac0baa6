"use client";

import { correctionsOf, type Reading } from "@caravan/core/model";
import { useState } from "react";
import { Button } from "../../ui/button";
import { t } from "../../ui/words";

/** Shows the command that reads such a file the same way, for build scripts. */
export function ReadingCommand({ picture, file, reading }: { picture: string; file: string; reading: Reading }) {
  const [said, setSaid] = useState(t("Copy"));
  const options = correctionsOf(reading).map((each) => `--read ${quoted(each)}`);
  const command = ["caravan cut", quoted(picture), "--meta", quoted(file), ...options].join(" ");
  const copy = () =>
    navigator.clipboard.writeText(command).then(
      () => setSaid(t("Copied")),
      // Some browsers allow it only on secure pages.
      () => setSaid(t("Could not copy: select it above")),
    );
  return (
    <details className="mt-2 text-small" onToggle={() => setSaid(t("Copy"))}>
      <summary className="cursor-pointer text-lapis">{t("The same on the command line")}</summary>
      <code
        data-testid="reading-command"
        className="mt-1 block max-h-32 overflow-y-auto rounded-box border border-line bg-raised p-1.5 break-all select-all"
      >
        {command}
      </code>
      <Button className="mt-1" onClick={() => void copy()}>
        {said}
      </Button>
    </details>
  );
}

/** Quoted for shells where needed. */
function quoted(word: string): string {
  return /^[\w./=@+-]+$/.test(word) ? word : `'${word.replaceAll("'", "'\\''")}'`;
}
