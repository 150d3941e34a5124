import type { TripView } from "../../api/trip";
import { BracketBar } from "../../drawings/BracketBar";
import { trip as words } from "../../words/trip";
import { RunCell, RunWords } from "./RunCell";

/** The same as the matrix for a narrow screen: the runs below each other, then one row a part with a block for each run. */
export function PartRows({
  view,
  onDoubt,
}: {
  view: TripView;
  onDoubt: (run: TripView["runs"][number]) => void;
}) {
  return (
    <>
      <ol className="run-list">
        {view.runs.map((run) => (
          <li key={run.id} className={run.is_doubtful ? "doubted" : run.in_conflict ? "conflict" : ""}>
            <RunWords run={run} onDoubt={onDoubt} />
          </li>
        ))}
      </ol>
      <ul className="part-rows">
        {view.parts.map((part) => (
          <li key={part.id}>
            <b>{part.title}</b>
            <span className={`run-state ${part.state}`}>
              {part.is_unhealthy ? words.notHealthy : words.states[part.state]}
            </span>
            <span className="row">
              {view.runs.map((run) => (
                <RunCell key={run.id} run={run} part={part.id} />
              ))}
            </span>
            <span className="part-proved">
              <BracketBar bracket={part.bracket} state={part.state} />
              <span className="quiet">{part.proved}</span>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
