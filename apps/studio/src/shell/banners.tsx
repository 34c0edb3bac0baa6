"use client";

import { saveNow } from "../project/autosave";
import { useOpenProject } from "../project/open-project";
import { workHere } from "../project/projects";
import { dismissReport, saveReport, useReports } from "../project/reports";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { t } from "../ui/words";
import { Banner } from "./banner";
import { saveAsFile } from "./commands";
import { HomeBanner } from "./home-banner";

/** Lasting states that the user must know about: read-only, not saved, and internal errors. */
export function Banners() {
  const reader = useOpenProject((open) => open.access === "reader");
  const saving = useOpenProject((open) => open.saving);
  const report = useReports((state) => state.report);
  const retry = () => {
    useOpenProject.setState({ saving: { kind: "pending" } });
    inBackground(saveNow());
  };
  return (
    <div aria-live="assertive">
      {reader && (
        <Banner text={t("This project is open in another tab. Here you can look, but not change anything.")}>
          <Button look="now" onClick={() => inBackground(workHere())}>
            {t("Work here instead")}
          </Button>
        </Banner>
      )}
      {saving.kind === "failed" && (
        <Banner
          text={
            saving.full
              ? t("{reason} Your work is still here: save it to a file now, then delete projects you no longer need.", {
                  reason: saving.reason,
                })
              : t("{reason} Your work is still here: save it to a file now.", { reason: saving.reason })
          }
        >
          <Button look="now" onClick={() => inBackground(saveAsFile())}>
            {t("Save to a file")}
          </Button>
          {!reader && <Button onClick={retry}>{t("Try again")}</Button>}
        </Banner>
      )}
      {!reader && <HomeBanner />}
      {report && (
        <Banner
          text={t("Internal error: “{what}” would have left a project that cannot be opened again, so it was not done. Nothing is lost.", {
            what: report.what,
          })}
        >
          <Button look="now" onClick={() => saveReport(report)}>
            {t("Save the report")}
          </Button>
          <Button onClick={dismissReport}>{t("Dismiss")}</Button>
        </Banner>
      )}
    </div>
  );
}
