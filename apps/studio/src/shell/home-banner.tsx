"use client";

import { type HomeState, useHome } from "../project/home/home-state";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { t } from "../ui/words";
import { Banner } from "./banner";

const home = () => import("../project/home/home");
const lookThere = (ask: boolean) => inBackground(home().then(({ look }) => look(ask)));
const writeThere = () => inBackground(home().then(({ writeOver }) => writeOver()));

/** What keeps the project from being saved into its folder, and what to do about it. All of it is safe in this browser meanwhile. */
export function HomeBanner() {
  const kept = useHome((state) => state.home);
  if (!kept) return null;
  const { folder, state } = kept;
  const text = textOf(state, folder);
  if (text === null) return null;
  return (
    <Banner text={text}>
      {state.kind === "locked" && (
        <Button look="now" onClick={() => lookThere(true)}>
          {t("Allow")}
        </Button>
      )}
      {state.kind === "changed" && (
        <Button look="now" onClick={() => useHome.setState({ reviewing: true })}>
          {t("See what changed")}
        </Button>
      )}
      {(state.kind === "unreadable" || state.kind === "failed") && (
        <Button look="now" onClick={() => lookThere(true)}>
          {t("Look again")}
        </Button>
      )}
      {state.kind === "unreadable" && <Button onClick={writeThere}>{t("Overwrite with mine")}</Button>}
      {state.kind === "gone" && (
        <>
          <Button look="now" onClick={writeThere}>
            {t("Write it again")}
          </Button>
          <Button onClick={() => inBackground(home().then(({ stopKeeping }) => stopKeeping()))}>{t("Keep it in this browser only")}</Button>
        </>
      )}
    </Banner>
  );
}

function textOf(state: HomeState, folder: string): string | null {
  switch (state.kind) {
    case "locked":
      return t("The browser asks for permission to save into {folder} again. Until then the project is saved in this browser only.", {
        folder,
      });
    case "changed":
      return t("Someone else changed caravan.json in {folder}. Nothing is overwritten: review it first.", { folder });
    case "unreadable":
      return t("caravan.json in {folder} cannot be read as it is now, so it is left alone: {reason}", { folder, reason: state.reason });
    case "gone":
      return t("caravan.json is no longer in {folder}. The project is saved in this browser.", { folder });
    case "failed":
      return t("The project could not be saved into {folder}: {reason} It is saved in this browser.", { folder, reason: state.reason });
    default:
      return null;
  }
}
