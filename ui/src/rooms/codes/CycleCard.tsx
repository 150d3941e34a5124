import { useEffect, useState } from "react";
import type { Cycle, EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { Lamp } from "../../drawings/Lamp";
import { cycle as words } from "../../words/codes";

type Props = { jobId: string; cycle: Cycle };
type Outcome = "passed" | "failed" | "absent";

/** The steps of an automatic test with their usual times: tick what happened, see what that points at. */
export function CycleCard({ jobId, cycle }: Props) {
  const event = useEvent(jobId);
  const send = (body: EventBody) => event.mutate(body);
  return (
    <Card isStack aria-label={cycle.title}>
      <div className="head">
        <h2>
          {words.title}: {cycle.title}
        </h2>
        {cycle.begun_at && <Clock since={cycle.begun_at} />}
      </div>
      {cycle.sentence && (
        <p className="cycle-says" role="status">
          {cycle.sentence}
        </p>
      )}
      <div>
        <button
          type="button"
          className={cycle.begun_at ? "plain bordered" : "act"}
          onClick={() => send({ kind: "cycle_begun", cycle: cycle.id })}
        >
          {cycle.begun_at ? words.beginAgain : words.begin}
        </button>
      </div>
      <EventProblem event={event} />
      <ol className="cycle-steps">
        {cycle.steps.map((step) => (
          <li key={step.id} className={step.id === cycle.next_step && cycle.begun_at ? "is-next" : ""}>
            <div>
              <b>{step.title}</b>
              <span className="quiet">
                {words.usual(step.shortest_s, step.longest_s)}
                {step.step_code !== null && ` · ${words.step} ${step.step_code}`}
              </span>
            </div>
            {step.lit && <SmallLamps lit={step.lit} label={`${words.step} ${step.step_code}`} />}
            <fieldset className="chips">
              <legend className="hidden">{step.title}</legend>
              {(["passed", "failed", "absent"] as Outcome[]).map((outcome) => (
                <Chip
                  key={outcome}
                  disabled={!cycle.begun_at}
                  isOn={step.outcome === outcome}
                  onClick={() => send({ kind: "cycle_ticked", cycle: cycle.id, step: step.id, outcome })}
                >
                  {words[outcome]}
                </Chip>
              ))}
            </fieldset>
          </li>
        ))}
      </ol>
      {cycle.shown_to_work.length > 0 && (
        <p className="quiet none">
          {words.worked}: {cycle.shown_to_work.join(", ")}
        </p>
      )}
    </Card>
  );
}

function SmallLamps({ lit, label }: { lit: string; label: string }) {
  return (
    <span className="small-lamps" role="img" aria-label={`${label}: ${lit}`}>
      {[...lit].map((sign, at) => (
        <Lamp key={at} isLit={sign === "1"} size={20} />
      ))}
    </span>
  );
}

/** Minutes and seconds since the test began. */
function Clock({ since }: { since: string }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.max(0, Math.floor((now - Date.parse(since)) / 1000));
  if (seconds > 3600) return null;
  return (
    <span className="mono" role="timer" aria-label={words.since}>
      {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, "0")}
    </span>
  );
}
