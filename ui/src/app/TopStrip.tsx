import { IconAlertTriangleFilled, IconPlugConnectedX, IconQuestionMark } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Job, Safety } from "../api/client";
import { safetyWords, strip as words } from "../words/frame";
import { clockOf, momentOf } from "./times";
import "./topStrip.css";

export const SAFETY_MARKS: Record<Safety, typeof IconPlugConnectedX> = {
  not_proved: IconQuestionMark,
  dead: IconPlugConnectedX,
  live: IconAlertTriangleFilled,
};

/** Always there: the machine, its supply, the state of safety, open dangers, the clock on the job. */
export function TopStrip({ job }: { job: Job }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(timer);
  }, []);
  const Mark = SAFETY_MARKS[job.safety];
  const blocking = job.hazards.filter((hazard) => hazard.forbids_power);
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
      {job.ended !== null && <span className="ended-mark">{words.ended}</span>}
      {blocking.length > 0 && job.ended === null && (
        <Link className="no-power" to={`/jobs/${job.id}/safe`}>
          <IconAlertTriangleFilled size={20} aria-hidden />
          {words.noPower}
        </Link>
      )}
      <Link
        to={`/jobs/${job.id}/safe`}
        className={`safety ${job.safety}`}
        aria-label={`${words.open}: ${safetySaid(job)}`}
      >
        <Mark size={22} aria-hidden />
        {safetySaid(job)}
      </Link>
      <span className="clock mono">{clockOf(job.opened_at, now, words.opened)}</span>
    </header>
  );
}

export function safetySaid(job: Job): string {
  if (job.safety === "dead")
    return `${safetyWords.dead}, ${words.proved} ${momentOf(job.safety_at, Date.now())}`;
  if (job.safety === "live") return `${safetyWords.live}: ${job.safety_reason}`.slice(0, 48);
  return safetyWords.not_proved;
}
