"use client";

import { type Finding, isMendable, mendsOf } from "@caravan/core/check";
import { useState } from "react";
import { useFindings } from "../../project/findings";
import { mendFinding } from "../../project/mend";
import { mendAll } from "../../project/mend-all";
import { currentProject } from "../../project/open-project";
import { goToPlace } from "../../project/view";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { ListHeading } from "../../ui/row-list";
import { t } from "../../ui/words";
import { FINDING_WORDS } from "./finding-words";

const SEVERITIES = [
  ["error", t("Stops delivery")],
  ["warning", t("Worth a look")],
  ["note", t("Notes")],
] as const;

/** More of one kind than this stand in one card that can be opened. */
const APART = 2;

/** The findings of the whole project, the gravest first; many of one kind together. */
export function Findings() {
  const findings = useFindings();
  if (!findings) return <p className="px-1.5 text-muted">{t("Looking for findings …")}</p>;
  return (
    <section aria-label={t("Findings")}>
      <ListHeading title={t("Findings")} count={findings.length} />
      {findings.length === 0 && <p className="px-1.5 text-cactus">{t("No findings.")}</p>}
      {SEVERITIES.map(([severity, words]) => {
        const own = findings.filter((each) => each.severity === severity);
        return own.length === 0 ? null : (
          <section key={severity} aria-label={words} className="mb-3">
            <h3 className={`mb-1.5 px-1.5 text-small font-semibold ${severity === "error" ? "text-brick" : "text-lapis"}`}>
              {words} <span className="number">{own.length}</span>
            </h3>
            <ul aria-label={t("Findings, {severity}", { severity })} className="flex flex-col gap-2">
              {byCode(own).map(([code, group]) =>
                group.length <= APART ? (
                  group.map((finding) => <FindingCard key={`${code} ${finding.where}`} finding={finding} />)
                ) : (
                  <ManyCard key={code} code={code} findings={group} />
                ),
              )}
            </ul>
          </section>
        );
      })}
    </section>
  );
}

function byCode(findings: readonly Finding[]): [Finding["code"], Finding[]][] {
  const groups = new Map<Finding["code"], Finding[]>();
  for (const finding of findings) groups.set(finding.code, [...(groups.get(finding.code) ?? []), finding]);
  return [...groups];
}

function cardLook({ severity }: Finding): string {
  return `rounded-box border border-l-4 border-line bg-raised p-2 ${severity === "error" ? "border-l-brick" : "border-l-lapis"}`;
}

function FindingCard({ finding }: { finding: Finding }) {
  return (
    <li className={cardLook(finding)}>
      <OneFinding finding={finding} />
    </li>
  );
}

function OneFinding({ finding }: { finding: Finding }) {
  const { where, message, messageFrom, place } = finding;
  const from = useCountFrom();
  return (
    <>
      <p className="font-semibold break-words">{where}</p>
      <p className="mb-2 text-small break-words">{messageFrom?.(from) ?? message}</p>
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => goToPlace(place, currentProject())}>{t("Show")}</Button>
        {mendsOf(finding).map((mend) => (
          <Button key={mend.label} className="max-w-full whitespace-normal! text-left" onClick={() => mendFinding({ ...finding, mend })}>
            {mend.label}
          </Button>
        ))}
      </div>
    </>
  );
}

/** So many of a kind are shown at once; there may be one for each of ten thousand frames. */
const SHOWN_AT_ONCE = 100;

function ManyCard({ code, findings }: { code: Finding["code"]; findings: readonly Finding[] }) {
  const [isOpen, setOpen] = useState(false);
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const left = findings.length - shown;
  const words = FINDING_WORDS[code];
  const mendable = findings.filter(isMendable).length;
  return (
    <li className={cardLook(findings[0] as Finding)}>
      <details onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
        <summary className="min-h-8 cursor-pointer">
          <span className="font-semibold">{words}</span> <span className="number text-muted">{findings.length} ×</span>
        </summary>
        <ul aria-label={words} className="mt-1 flex max-h-80 flex-col gap-2 overflow-y-auto">
          {(isOpen ? findings.slice(0, shown) : []).map((finding) => (
            <li key={finding.where} className="border-t border-line pt-2">
              <OneFinding finding={finding} />
            </li>
          ))}
          {isOpen && left > 0 && (
            <li>
              <Button onClick={() => setShown(shown + SHOWN_AT_ONCE)}>
                {t("Show {count} more", { count: Math.min(left, SHOWN_AT_ONCE) })}
              </Button>
            </li>
          )}
        </ul>
      </details>
      {mendable > 1 && (
        <Button className="mt-1.5" onClick={() => mendAll(code, words)}>
          {mendable === findings.length ? t("Mend all {mendable}", { mendable }) : t("Mend {mendable} of them", { mendable })}
        </Button>
      )}
    </li>
  );
}
