import { IconAlertTriangleFilled, IconPlugConnectedX, IconQuestionMark } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import type { Safety, Trace } from "../../api/client";
import { safetyDialog, safetyWords } from "../../words/frame";
import { trace as words } from "../../words/trace";
import { clockOf, momentOf } from "./times";

const MARKS: Record<Safety, typeof IconPlugConnectedX> = {
  not_proved: IconQuestionMark,
  dead: IconPlugConnectedX,
  live: IconAlertTriangleFilled,
};

/** Always there: the machine, its supply, the state of safety, the clock on the job. */
export function TopStrip({ trace, onSafety }: { trace: Trace; onSafety: () => void }) {
  const { job } = trace;
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(timer);
  }, []);
  const Mark = MARKS[job.safety];
  return (
    <header className="top">
      <div>
        <h1>
          {job.machine} <span className="quiet">· {job.place}</span>
        </h1>
        <p title={job.complaint}>
          {job.complaint || job.sheet_title} · {job.sheet} · {job.supply} · {job.watts} W
        </p>
      </div>
      <button
        type="button"
        className={`safety ${job.safety}`}
        onClick={onSafety}
        aria-label={`${safetyDialog.open}: ${said(job)}`}
      >
        <Mark size={22} aria-hidden />
        {said(job)}
      </button>
      <span className="clock mono">{clockOf(job.opened_at, now, words.opened)}</span>
    </header>
  );
}

function said(job: Trace["job"]): string {
  if (job.safety === "dead")
    return `${safetyWords.dead}, ${safetyDialog.proved} ${momentOf(job.safety_at, Date.now())}`;
  if (job.safety === "live") return `${safetyWords.live}: ${job.safety_reason}`.slice(0, 48);
  return safetyWords.not_proved;
}
