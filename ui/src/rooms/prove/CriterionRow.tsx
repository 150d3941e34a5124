import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { Criterion, ProveView } from "../../api/proof";
import { Act } from "../../app/controls/Act";
import { EventProblem } from "../../app/EventProblem";
import { ReadingField } from "../../app/ReadingField";
import { RunForm } from "../../app/RunForm";
import { timeOf } from "../../app/times";
import { prove as words } from "../../words/prove";
import { CurrentForm } from "./CurrentForm";
import { Needs } from "./Needs";
import { NotAllowed } from "./NotAllowed";

/** One criterion: its limit, what was shown, and, where it is the next, how to show it. */
export function CriterionRow({ view, row }: { view: ProveView; row: Criterion }) {
  const record = useEvent(view.job.id);
  const isOpen = !view.is_over && (row.is_next || row.kind === "seen");
  const see = (isGood: boolean) =>
    record.mutate({ kind: "proof_made", criterion: row.id, is_good: isGood } as EventBody);
  return (
    <li
      id={row.id}
      className={`criterion ${row.state}`}
      aria-current={row.is_next ? "step" : undefined}
      data-stands={row.stands}
    >
      <div className="criterion-head">
        <StateMark state={row.state} />
        <b>{row.title}</b>
        <span className="criterion-state">{words.states[row.state]}</span>
      </div>
      <p className="quiet">
        {row.how}{" "}
        {row.limit && (
          <b className="criterion-limit">
            {words.limit}: {row.limit}
          </b>
        )}{" "}
        {row.basis && `(${row.basis})`}
      </p>
      {row.reads && (
        <p>
          <b className="mono criterion-reads">{row.reads}</b>{" "}
          {[row.tester, row.shown_by].filter(Boolean).join(", ")}
        </p>
      )}
      {row.voided && <p className="notice">{words.voided(row.voided, timeOf(row.voided_at))}</p>}
      {row.before && (
        <p className="criterion-before">
          {words.before}: <b>{row.before}</b>
        </p>
      )}
      {isOpen && !row.stands && row.kind !== "current" && <Needs jobId={view.job.id} of={row} />}
      {isOpen && row.caution && <p className="danger-words">{row.caution}</p>}
      {isOpen && row.kind === "seen" && (
        <div className="row">
          <Act
            look="plain"
            aria-label={`${words.good}: ${row.title}`}
            disabled={record.isPending}
            onClick={() => see(true)}
          >
            {words.good}
          </Act>
          <Act
            look="plain"
            aria-label={`${words.bad}: ${row.title}`}
            disabled={record.isPending}
            onClick={() => see(false)}
          >
            {words.bad}
          </Act>
        </div>
      )}
      {isOpen && row.kind === "reading" && (
        <ReadingField jobId={view.job.id} typed={row.line} label={`${row.title}, ${words.reads}`} />
      )}
      {isOpen && row.id === "insulation" && <NotAllowed jobId={view.job.id} />}
      {isOpen && (row.kind === "run" || row.kind === "heat" || row.kind === "gfci") && (
        <RunForm
          jobId={view.job.id}
          outcomes={view.outcomes}
          heats={view.heats}
          asksGfci={view.criteria.some((each) => each.kind === "gfci")}
        />
      )}
      {isOpen && row.kind === "gfci" && (
        <details>
          <summary>{words.noGfci}</summary>
          <CurrentForm view={view} criterion={row.id} />
        </details>
      )}
      {isOpen && row.kind === "current" && <CurrentForm view={view} criterion={row.id} />}
      <EventProblem event={record} />
    </li>
  );
}

/** Shape first: filled dot in its ring, an arrow out of it, or an empty ring. */
function StateMark({ state }: { state: Criterion["state"] }) {
  return (
    <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true" className="criterion-mark">
      <path d="M8 4H4v18h4M18 4h4v18h-4" fill="none" stroke="currentColor" strokeWidth="2.5" />
      {state === "good" && <circle cx="13" cy="13" r="5" fill="currentColor" />}
      {state === "bad" && (
        <path d="M10 20 20 10M13 9h8v8" fill="none" stroke="currentColor" strokeWidth="2.5" />
      )}
    </svg>
  );
}
