"use client";

import { setDrive } from "@caravan/core/edit";
import { type AccountRow, type Micros, msFromMicros } from "@caravan/core/model";
import { type Comparison, compared, rowInWords } from "@caravan/core/rehearse";
import { useEffect, useMemo, useRef } from "react";
import { act } from "../../project/act";
import { Button } from "../../ui/button";
import { useElementSize } from "../../ui/element-size";
import { onThemeChange } from "../../ui/theme-now";
import { facts, t } from "../../ui/words";
import { thenDrive } from "./drive-bar";
import { LANES_HEIGHT, lanesOf, paintLanes, spanShown, timeAtX } from "./lanes";
import { playKept } from "./recording";
import { countOfRows, endTime, rowsOf, type Session, shownTime, stayAt, useSession } from "./session";

/** Shows what played when and why, as lanes over time. Hovering shows a moment on the stage, clicking stays there. */
export function AccountPanel() {
  const drive = useSession((session) => session.drive);
  const comparison = useComparison();
  return (
    <section aria-label={t("Account")} className="shrink-0 rounded-box border border-line bg-surface px-3 pt-2 pb-2">
      <header className="mb-1 flex min-h-7 flex-wrap items-center justify-between gap-x-3">
        <h3 className="font-semibold text-muted">{t("Account")}</h3>
        <Reading />
        {drive && (
          <span className="flex items-center gap-1.5">
            {comparison?.from !== null && comparison && (
              <Button className="min-h-6" onClick={() => acceptNow(drive.name)}>
                {t("This is right now")}
              </Button>
            )}
            <Button className="min-h-6" onClick={() => thenDrive(() => playKept(drive))}>
              {t("Play it")}
            </Button>
            <Trim />
          </span>
        )}
      </header>
      {drive && comparison && (
        <p role="status" className={comparison.from === null ? "text-small text-cactus" : "text-small text-brick"}>
          {comparison.from === null
            ? t("Same as when it was kept.")
            : t("Differs from when it was kept, from {seconds} on.", { seconds: seconds(comparison.from) })}
        </p>
      )}
      <Lanes comparison={comparison} />
      <AccountInWords />
    </section>
  );
}

const seconds = (ms: number): string => `${Number((ms / 1000).toFixed(2))} s`;

/** How a kept drive differs from its current result; null if none is playing. */
function useComparison(): Comparison | null {
  const drive = useSession((session) => session.drive);
  const count = useSession(countOfRows);
  // A playing drive is compared as far as it has come, ten times a second.
  const end = useSession((session) => {
    if (!session.drive) return 0;
    const now = endTime(session);
    return now < session.drive.length * 1000 ? Math.floor(now / 100_000) * 100_000 : now;
  });
  // Another project, or other rules, may make as many starts at other times.
  const setting = useSession((session) => session.setting);
  return useMemo(() => {
    if (!drive || !setting || count === 0) return null;
    const until = Math.min(drive.length, msFromMicros(end));
    return compared(cutAt(drive.account, until), cutAt(inMs(rowsOf(useSession.getState())), until), until);
  }, [drive, setting, count, end]);
}

function cutAt(rows: readonly AccountRow[], until: number): AccountRow[] {
  return rows.filter(({ at }) => at <= until);
}

function inMs(rows: ReturnType<typeof rowsOf>): AccountRow[] {
  return rows.map((row) => ({ ...row, at: msFromMicros(row.at) }));
}

/** Accepts the current result as the expected one. */
function acceptNow(name: string): void {
  const session = useSession.getState();
  const { drive, log } = session;
  if (!drive || endTime(session) < drive.length * 1000) return;
  act(setDrive, name, { account: inMs(rowsOf(session)), track: log.track });
}

/** Cuts a drive after the current moment. */
function Trim() {
  const drive = useSession((session) => session.drive);
  const stay = useSession((session) => session.stay);
  if (!drive || stay === null || stay <= 0 || stay >= drive.length * 1000) return null;
  const at = msFromMicros(stay);
  const trimmed = () => {
    const keys = drive.keys.filter((each) => each.at <= at);
    const track = drive.track.filter((each) => each.at <= at);
    act(setDrive, drive.name, { length: at, keys, track, account: cutAt(drive.account, at) });
  };
  return (
    <Button className="min-h-6" onClick={trimmed}>
      {t("End it here")}
    </Button>
  );
}

/**
 * The time on the stage and what shows then, in words. Written directly into the page: it changes at every display refresh, which would
 * keep React from longer work.
 */
function Reading() {
  const line = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    const write = () => {
      const text = readingOf(useSession.getState());
      if (line.current && line.current.textContent !== text) line.current.textContent = text;
    };
    write();
    return useSession.subscribe(write);
  }, []);
  return <p ref={line} id="rehearsal-reading" className="number grow truncate text-right text-small text-muted" />;
}

function readingOf(session: Session): string {
  const at = shownTime(session);
  const row = rowsOf(session).findLast((each) => each.at <= at);
  const now = `${(at / 1_000_000).toFixed(2)} s`;
  const isPast = session.stay !== null || session.pointed !== null;
  const shows = !row ? "" : row.rule === null ? t("nothing shows") : t("{rule} plays {play}", { rule: row.rule, play: row.play ?? "" });
  return facts(isPast ? t("{now} of {seconds}", { now, seconds: seconds(endTime(session) / 1000) }) : now, shows);
}

/** The lanes, painted whenever they change. */
function Lanes({ comparison }: { comparison: Comparison | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, density } = useElementSize(canvas);
  const height = LANES_HEIGHT + (comparison ? 20 : 0);
  useEffect(() => {
    let request = 0;
    const draw = () => {
      request = 0;
      const context = canvas.current?.getContext("2d");
      if (!context || !canvas.current || width === 0) return;
      const session = useSession.getState();
      paintLanes(context, lanesOf(session, comparison), getComputedStyle(canvas.current), width, density);
      canvas.current.dataset.end = String(endTime(session) / 1000);
      canvas.current.dataset.firstEvent = String((session.log.events[0]?.at ?? 0) / 1000);
    };
    const soon = () => {
      if (request === 0) request = requestAnimationFrame(draw);
    };
    soon();
    const stops = [onThemeChange(soon), useSession.subscribe(soon)];
    return () => {
      cancelAnimationFrame(request);
      for (const stop of stops) stop();
    };
  }, [comparison, width, density]);
  const timeOf = (event: React.PointerEvent<HTMLCanvasElement>): Micros => {
    const box = event.currentTarget.getBoundingClientRect();
    return timeAtX(event.clientX - box.left, spanShown(useSession.getState()), width);
  };
  const isIn = (at: Micros) => at >= 0 && at <= endTime(useSession.getState());
  return (
    <canvas
      ref={canvas}
      data-testid="lanes"
      aria-hidden
      width={Math.round(width * density)}
      height={Math.round(height * density)}
      className="block w-full cursor-pointer touch-none"
      style={{ height }}
      onPointerMove={(event) => {
        const at = timeOf(event);
        if (event.buttons === 1) stayAt(at);
        else if (!useSession.getState().running) useSession.setState({ pointed: isIn(at) ? at : null });
      }}
      onPointerLeave={() => useSession.setState({ pointed: null })}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        stayAt(timeOf(event));
      }}
    />
  );
}

/** The number of latest starts listed for screen readers. */
const LISTED = 30;

function AccountInWords() {
  const count = useSession(countOfRows);
  const rows = useMemo(() => (count > 0 ? rowsOf(useSession.getState()).slice(-LISTED) : []), [count]);
  return (
    <ol aria-label={t("What showed and why")} className="sr-only">
      {rows.map((row, k) => (
        <li key={`${row.at} ${k}`}>
          {(row.at / 1_000_000).toFixed(2)} s: {rowInWords(row)}
        </li>
      ))}
    </ol>
  );
}
