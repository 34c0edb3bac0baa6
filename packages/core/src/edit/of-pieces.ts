import { CaravanError, type Source } from "../model";

/** What is put together from pieces has no picture of its own that could be cut, cleared or exchanged. */
export function refuseOfPieces({ name, cut }: Pick<Source, "name" | "cut">): void {
  if (cut?.by === "pieces")
    throw new CaravanError(
      "bad-call",
      name,
      "Its frames are put together from pieces: it has no picture of its own.",
      "Work on the sheet of its pieces.",
    );
}
