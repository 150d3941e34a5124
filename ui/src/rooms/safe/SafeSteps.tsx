import { IconCheck } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import type { EventBody, SafeState } from "../../api/client";
import { useEvent } from "../../api/events";
import { useMetersInBag } from "../../api/meters";
import { useSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { EventProblem } from "../../app/EventProblem";
import { ReadingField } from "../../app/ReadingField";
import { timeOf } from "../../app/times";
import { moveUnpressed } from "../../app/unpressed";
import { safe as words } from "../../words/safe";

type Step = SafeState["steps"][number];
type Point = SafeState["points"][number];
type Send = (body: EventBody) => void;

/** The steps in their order, the proof of dead among them. */
export function SafeSteps({ view }: { view: SafeState }) {
  const event = useEvent(view.job.id);
  const send: Send = (body) => event.mutate(body);
  const cut = view.cuts.find((way) => way.id === view.job.power.cut);
  const due = view.steps.find((step) => !step.is_done && !step.is_optional);
  useDue(view.job.ended === null ? due : undefined);
  return (
    <Card aria-label={words.steps}>
      <div className="head">
        <h2>{words.steps}</h2>
        <EventProblem event={event} />
      </div>
      <ol className="safe-steps">
        {view.steps.map((step) => (
          <li
            key={step.id}
            id={step.id}
            data-step={step.id}
            className={step.is_done ? "is-done" : ""}
            aria-current={step === due ? "step" : undefined}
          >
            <StepMark step={step} send={send} />
            <div>
              <b>{step.title}</b>
              <p>{step.how}</p>
              {!step.is_done && step.waits_until && <Countdown until={step.waits_until} />}
              {step.kind === "isolate" && cut && <p className="cut-said">{capital(cut.words)}</p>}
              {step.kind === "prove" && <Proof view={view} send={send} isDue={due === step} />}
            </div>
            <StepAct view={view} step={step} send={send} />
          </li>
        ))}
      </ol>
    </Card>
  );
}

/** The next step that is not ticked comes into view, and under the hand: nobody reaches the proof past it unseen. */
function useDue(due: Step | undefined) {
  const id = due?.kind === "tick" ? due.id : undefined;
  useEffect(() => {
    if (!id) return;
    moveUnpressed(() => {
      const row = document.querySelector(`[data-step="${id}"]`);
      row?.scrollIntoView({ block: "nearest" });
      row?.querySelector<HTMLButtonElement>("button.step-mark")?.focus({ preventScroll: true });
    });
  }, [id]);
}

/** How long a charge is still waited for, from the moment at which the machine was cut off. */
function Countdown({ until }: { until: string }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1_000);
    return () => clearInterval(timer);
  }, []);
  const left = Math.max(0, Math.ceil((Date.parse(until) - now) / 1_000));
  const clock = `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}`;
  return (
    <p className="countdown" role="timer">
      {left > 0 ? words.waits(clock) : words.waited}
    </p>
  );
}

/** A tick for what the hand does; what readings or a statement show is only marked. */
function StepMark({ step, send }: { step: Step; send: Send }) {
  const mark = step.is_done && <IconCheck size={26} stroke={3} aria-hidden />;
  if (step.kind !== "tick") {
    return (
      <span className="step-mark" aria-hidden>
        {mark}
      </span>
    );
  }
  return (
    <button
      type="button"
      className="step-mark"
      aria-pressed={step.is_done}
      aria-label={words.tick(step.title)}
      onClick={() => send({ kind: "step_ticked", step: step.id, is_done: !step.is_done })}
    >
      {mark}
    </button>
  );
}

/** How the machine is cut off: the one step that is a statement. */
function StepAct({ view, step, send }: { view: SafeState; step: Step; send: Send }) {
  // Whoever was sent here by a refusal says it anew: another device may have cut it off.
  const [isAsked, setIsAsked] = useState(useLocation().hash === "#isolate");
  if (step.kind !== "isolate") return null;
  if (step.is_done && !isAsked) {
    return (
      <Act look="bare" onClick={() => setIsAsked(true)}>
        {words.again}
      </Act>
    );
  }
  return (
    <fieldset className="stack isolate">
      <legend className="hidden">{step.title}</legend>
      {view.cuts.map((way, index) => (
        <button
          key={way.id}
          type="button"
          className={index === 0 ? "act" : "plain bordered"}
          onClick={() => {
            send({ kind: "isolated", how: way.id } as EventBody);
            setIsAsked(false);
          }}
        >
          {capital(way.words)}
        </button>
      ))}
    </fieldset>
  );
}

function capital(said: string): string {
  return said.slice(0, 1).toUpperCase() + said.slice(1);
}

/** Known source, every point, known source again: each reading is logged like any other. */
function Proof({ view, send, isDue }: { view: SafeState; send: Send; isDue: boolean }) {
  const meters = useMetersInBag(useSettings().data?.bag);
  const [meter, setMeter] = useState<string | null>(null);
  const { job } = view;
  return (
    <div className="proof" id="series">
      <p className="proof-says" role="status">
        {view.sentence} {job.safety === "live" && words.liveUntil(timeOf(job.safety_until))}
        {job.safety === "dead" && job.safety_until && (
          <>
            {words.until(timeOf(job.safety_until))}{" "}
            {view.is_prover && (
              <Act look="plain" onClick={() => send({ kind: "attended" })}>
                {words.stillHere}
              </Act>
            )}
          </>
        )}
      </p>
      <label className="proof-meter">
        {words.meter}
        <select
          className="pick"
          value={meter ?? ""}
          onChange={(event) => setMeter(event.currentTarget.value || null)}
        >
          <option value="">{view.meter || words.anyMeter}</option>
          {meters.map((row) => (
            <option key={row.id} value={row.id}>
              {row.title}
            </option>
          ))}
        </select>
      </label>
      <table>
        <tbody>
          {(view.hand.length > 0 ? view.hand : view.points).map((point, index) => (
            <PointRow key={`${point.id}-${index}`} jobId={job.id} point={point} meter={meter} isDue={isDue} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

type PointProps = { jobId: string; point: Point; meter: string | null; isDue: boolean };

function PointRow({ jobId, point, meter, isDue }: PointProps) {
  return (
    <tr className={point.is_next ? "is-next" : ""} aria-current={point.is_next ? "step" : undefined}>
      <th scope="row">
        {point.title}
        {point.between.length > 0 && <span>{point.between.join(" — ")}</span>}
      </th>
      <td className="limit">{point.limit}</td>
      <td className="mono now">
        {point.is_good !== null && (
          <span className={point.is_good ? "good" : "bad"}>
            {point.is_good && <IconCheck size={18} stroke={3} aria-hidden />} {point.reads}
          </span>
        )}
      </td>
      <td className="entry">
        {point.is_next && (
          <ReadingField
            key={point.id}
            jobId={jobId}
            typed={point.typed}
            label={`${point.title}, ${words.reads}`}
            meter={meter}
            autoFocus={isDue}
          />
        )}
      </td>
    </tr>
  );
}
