import { CaravanError, type Source } from "../model";
import { t } from "../words";

/** Refuses edits of a picture (cutting, clearing, replacing) for sources put together from pieces, which have none. */
export function refuseOfPieces({ name, cut }: Pick<Source, "name" | "cut">): void {
  if (cut?.by === "pieces")
    throw new CaravanError(
      "bad-call",
      name,
      t("Its frames are put together from pieces: it has no picture of its own."),
      t("Work on the sheet of its pieces."),
    );
}
