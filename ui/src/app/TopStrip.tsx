import {
  IconAlertTriangleFilled,
  IconBoltFilled,
  IconPlugConnectedX,
  IconPlugX,
  IconQuestionMark,
} from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Job } from "../api/client";
import { useEvent } from "../api/events";
import { type PowerNow, type Stands, usePower } from "../api/power";
import { safetyWords, strip as words } from "../words/frame";
import { Act } from "./controls/Act";
import { classes } from "./controls/classes";
import { EventProblem } from "./EventProblem";
import { usePhone } from "./phone";
import { clockOf, momentOf } from "./times";
import "./topStrip.css";

export const SAFETY_MARKS: Record<Stands, typeof IconPlugConnectedX> = {
  not_proved: IconQuestionMark,
  dead: IconPlugConnectedX,
  live: IconAlertTriangleFilled,
  under_voltage: IconBoltFilled,
  unknown: IconPlugX,
};

/** So long before a proof of dead runs out it can be held from every room. */
const ENDING_MS = 120_000;

/** Always there: the machine, its supply, the state of safety, open dangers, the clock on the job. */
export function TopStrip({ job }: { job: Job }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(timer);
  }, []);
  const { stands, power } = usePower(job);
  const Mark = SAFETY_MARKS[stands];
  const isPhone = usePhone();
  const said = isPhone ? safetyShort(stands, power) : safetySaid(stands, power);
  const event = useEvent(job.id);
  const isEnding =
    stands === "dead" && power.until !== "" && Date.parse(power.until) - Date.now() < ENDING_MS;
  const blocking = job.hazards.filter((hazard) => hazard.forbids_power);
  const shout = stands === "unknown" ? words.unknown : power.shout && words.shout(power.shout);
  return (
    <div className="top-strip">
      <header className={classes("top", isEnding && "is-ending")}>
        <div>
          <h1>
            <bdi>{job.machine}</bdi>{" "}
            <span className="quiet">
              · <bdi>{job.place}</bdi>
            </span>
          </h1>
          <p title={job.complaint}>
            <bdi>{job.complaint || job.sheet_title}</bdi> · {job.sheet} · {job.supply} · {job.watts} W
          </p>
        </div>
        {job.ended !== null && <span className="ended-mark">{words.ended}</span>}
        {blocking.length > 0 && job.ended === null && (
          <Link
            className="no-power"
            to={`/jobs/${job.id}/safe`}
            title={blocking.map((hazard) => hazard.words).join("; ")}
          >
            <IconAlertTriangleFilled size={20} aria-hidden />
            {words.noPower}
          </Link>
        )}
        <Link
          to={`/jobs/${job.id}/safe`}
          className={`safety ${stands === "under_voltage" && power.is_shut ? "plugged_in" : stands}`}
          aria-label={`${words.open}: ${said}`}
        >
          <Mark size={22} aria-hidden />
          {said}
        </Link>
        {isEnding && (
          <Act look="plain" disabled={event.isPending} onClick={() => event.mutate({ kind: "attended" })}>
            {words.stillHere}
          </Act>
        )}
        {!(isPhone && (isEnding || job.ended !== null)) && (
          <span className="clock mono">{clockOf(job.opened_at, now, words.opened)}</span>
        )}
      </header>
      {event.error && (
        <div className="top-problem">
          <EventProblem event={event} />
        </div>
      )}
      {shout && (
        <p className="shout" role="alert">
          <IconBoltFilled size={24} aria-hidden /> {shout}
        </p>
      )}
    </div>
  );
}

/** The same for a phone: how long the proof holds is what counts. */
function safetyShort(stands: Stands, power: PowerNow["power"]): string {
  if (stands !== "dead" || !power.until) return safetySaid(stands, power);
  return `${safetyWords.dead} ${words.until} ${momentOf(power.until, Date.now())}`;
}

/** The state in a few words: what is proved and until when, why it is live. */
export function safetySaid(stands: Stands, power: PowerNow["power"]): string {
  if (stands === "dead") {
    const until = power.until ? `, ${words.until} ${momentOf(power.until, Date.now())}` : "";
    return `${safetyWords.dead}, ${words.proved} ${momentOf(power.at, Date.now())}${until}`;
  }
  if (stands === "under_voltage" && power.is_shut) return words.pluggedIn;
  if (stands === "live") return `${safetyWords.live}: ${power.reason}`.slice(0, 48);
  return safetyWords[stands];
}
