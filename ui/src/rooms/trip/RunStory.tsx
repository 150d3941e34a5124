import { useState } from "react";
import { useEvent } from "../../api/events";
import { type TripView, useTripStory } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { useRoomKeys } from "../../app/keys";
import { timeOf } from "../../app/times";
import { trip as words } from "../../words/trip";

/** The runs in order, each with what it proved; the last one can be taken back. */
export function RunStory({ view }: { view: TripView }) {
  const [isShown, setIsShown] = useState(false);
  const { data } = useTripStory(view.job.id, view.method, view.job.revision, isShown);
  const record = useEvent(view.job.id);
  const last = view.runs.filter((run) => !run.is_line).at(-1);
  const takeBack = () => last && record.mutate({ kind: "run_withdrawn", run: last.id });
  useRoomKeys({ undo: () => void takeBack() });
  return (
    <Card className="run-story" aria-label={words.story}>
      <details onToggle={(event) => setIsShown(event.currentTarget.open)}>
        <summary>{words.story}</summary>
        <ol>
          {data?.steps.map((step) => (
            <li key={step.run}>
              <span className="quiet">{timeOf(step.at)}</span> <b className="mono">{step.reads}</b>{" "}
              <span className={step.is_conflict ? "problem" : ""}>{step.words}</span>
            </li>
          ))}
        </ol>
      </details>
      {last && (
        <Act look="plain" onClick={takeBack}>
          {words.takeBack}
        </Act>
      )}
    </Card>
  );
}
