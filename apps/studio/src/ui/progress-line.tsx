import { Button } from "./button";
import { t } from "./words";

/** Shows long-running work: its name, its progress, and a way to stop it. */
export function ProgressLine({ label, done, onStop }: { label: string; done: number; onStop: () => void }) {
  const percent = Math.round(done * 100);
  return (
    <div className="flex items-center gap-3 rounded-box border border-line bg-raised px-3 py-2">
      <span className="shrink-0">{label}</span>
      <div
        role="progressbar"
        aria-label={label}
        aria-valuenow={percent}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-2 grow overflow-hidden rounded-box bg-line"
      >
        <div className="h-full bg-now" style={{ width: `${percent}%` }} />
      </div>
      <Button onClick={onStop}>{t("Stop")}</Button>
    </div>
  );
}
