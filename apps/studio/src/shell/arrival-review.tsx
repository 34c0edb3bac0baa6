"use client";

import { lookOf } from "@caravan/core/art";
import { useEffect, useState } from "react";
import { bringIn, endReview, forgetRefused, useReview } from "../project/arrive";
import { type Choices, type Proposal, USUAL_CHOICES } from "../project/arriving/proposals";
import { usePicture } from "../project/pictures";
import { Button } from "../ui/button";
import { Choice } from "../ui/choice";
import { inBackground } from "../ui/in-background";
import { SheetDialog } from "../ui/sheet-dialog";
import { Tick } from "../ui/tick";
import { UnplacedRecords } from "../ui/unplaced-records";

/** Everything of one drop with what Caravan would make of it; one word brings it in, and one undo takes it back. */
export function ArrivalReview() {
  const proposals = useReview((state) => state.proposals);
  const [choices, setChoices] = useState<ReadonlyMap<string, Choices>>(new Map());
  useEffect(() => {
    if (proposals) setChoices(new Map());
  }, [proposals]);
  if (!proposals) return null;
  const choicesOf = ({ id }: Proposal) => choices.get(id) ?? USUAL_CHOICES;
  const choose = (proposal: Proposal, change: Partial<Choices>) =>
    setChoices(new Map(choices).set(proposal.id, { ...choicesOf(proposal), ...change }));
  const count = proposals.filter((proposal) => choicesOf(proposal).include).length;
  const close = () => {
    endReview();
    inBackground(forgetRefused(proposals));
  };
  const bring = () => {
    endReview();
    inBackground(bringIn(proposals, choicesOf));
  };
  return (
    <SheetDialog
      title="What came in"
      description="This is what Caravan would make of it. Change what you like; undo takes all of it back at once."
      open
      onClose={close}
    >
      <ul className="flex flex-col gap-2.5">
        {proposals.map((proposal) => (
          <ProposalRow
            key={proposal.id}
            proposal={proposal}
            choices={choicesOf(proposal)}
            onChange={(change) => choose(proposal, change)}
          />
        ))}
      </ul>
      <div className="sticky bottom-0 mt-3 flex justify-end gap-2 bg-paper pt-2">
        <Button onClick={close}>Cancel</Button>
        <Button look="now" autoFocus disabled={count === 0} onClick={bring} hint="Enter">
          {count === proposals.length ? "Import" : `Import ${count} of ${proposals.length}`}
        </Button>
      </div>
    </SheetDialog>
  );
}

const GROUNDS = { plain: "plain background", key: "key colour", checker: "picture of a checkerboard" };

function ProposalRow({
  proposal,
  choices,
  onChange,
}: {
  proposal: Proposal;
  choices: Choices;
  onChange: (change: Partial<Choices>) => void;
}) {
  const { name, what, notes, shows, kind, ground, clips, parting, unplaced } = proposal;
  return (
    <li className={`flex gap-3 rounded-box border border-line bg-raised p-2.5 ${choices.include ? "" : "opacity-60"}`}>
      <div className="check flex h-18 w-24 shrink-0 items-center justify-center overflow-hidden rounded-sm">
        <Moving hashes={shows.map(({ sha256 }) => sha256)} />
      </div>
      <div className="min-w-0 grow">
        <h3 className="truncate font-bold">{name}</h3>
        <p>{what}.</p>
        {notes.map((note) => (
          <p key={note} className="text-small font-semibold text-brick">
            {note}
          </p>
        ))}
        {unplaced && unplaced.length > 0 && <UnplacedRecords unplaced={unplaced} />}
        <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
          <Tick label={kind === "recut" ? "Cut it so" : "Import"} checked={choices.include} onChange={(include) => onChange({ include })} />
          {parting && (
            <Choice
              label={`What to make of ${name}`}
              value={choices.apart ? "apart" : "whole"}
              options={[
                ["whole", parting.whole],
                ["apart", parting.apart],
              ]}
              onChange={(way) => onChange({ apart: way === "apart" })}
            />
          )}
          {ground && (
            <Tick
              label={`Clear its ${GROUNDS[ground.kind]} ${ground.clearing.colours.join(" and ")}`}
              checked={choices.clear}
              onChange={(clear) => onChange({ clear })}
            />
          )}
          {clips.length > 0 && kind !== "recut" && (
            <Tick
              label={clips.length === 1 ? "Make a clip with its times" : `Make its ${clips.length} clips`}
              checked={choices.clips}
              onChange={(take) => onChange({ clips: take })}
            />
          )}
        </div>
      </div>
    </li>
  );
}

/** The pictures of it one after the other, small; the first alone where motion is not wanted. */
function Moving({ hashes }: { hashes: readonly string[] }) {
  const [shown, setShown] = useState(0);
  const count = hashes.length;
  useEffect(() => {
    if (count < 2 || matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    const timer = setInterval(() => setShown((now) => (now + 1) % count), 120);
    return () => clearInterval(timer);
  }, [count]);
  return <SmallPicture sha256={hashes[shown % Math.max(1, count)]} />;
}

function SmallPicture({ sha256 }: { sha256: string | undefined }) {
  const picture = usePicture(sha256 === undefined ? undefined : lookOf({}, { sha256 }));
  const paint = (canvas: HTMLCanvasElement | null) => {
    const context = canvas?.getContext("2d");
    if (!context || !picture) return;
    const from = picture.overview?.bitmap ?? picture.bitmap;
    const fit = Math.min(96 / from.width, 72 / from.height);
    const scale = fit >= 1 ? Math.min(4, Math.floor(fit)) : fit;
    context.canvas.width = Math.max(1, Math.round(from.width * scale));
    context.canvas.height = Math.max(1, Math.round(from.height * scale));
    context.imageSmoothingEnabled = scale < 1;
    context.drawImage(from, 0, 0, context.canvas.width, context.canvas.height);
  };
  return <canvas ref={paint} aria-hidden />;
}
