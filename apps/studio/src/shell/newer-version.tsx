"use client";

import { takeNewer, useNewer } from "../offline/keep-offline";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { t } from "../ui/words";

/** Announces a newer Caravan on the server. It is taken only when the user says so, never under open work. */
export function NewerVersion() {
  const { waiting, taking } = useNewer();
  if (!waiting) return null;
  return (
    <section
      aria-label={t("A newer version")}
      className="flex items-center gap-3 border-b border-line border-l-4 border-l-lapis bg-raised px-4 py-2"
    >
      <p className="grow">{t("A newer version of Caravan is ready. Taking it saves your work and loads the page again.")}</p>
      <Button look="now" disabled={taking} onClick={() => inBackground(takeNewer())}>
        {taking ? t("Taking it …") : t("Take it now")}
      </Button>
      <Button disabled={taking} onClick={() => useNewer.setState({ waiting: null })}>
        {t("Later")}
      </Button>
    </section>
  );
}
