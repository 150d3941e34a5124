import { useMediaQuery } from "@mantine/hooks";
import { useEvent } from "../../api/events";
import type { TripView } from "../../api/trip";
import { Card } from "../../app/controls/Card";
import { BracketBar } from "../../drawings/BracketBar";
import { trip as words } from "../../words/trip";
import { PartRows } from "./PartRows";
import { type Run, RunCell, RunReads, RunWhen } from "./RunCell";

/** What was connected in every run, and what all of them prove of each part. */
export function RunMatrix({ view, jobId }: { view: TripView; jobId: string }) {
  const record = useEvent(jobId);
  const isNarrow = useMediaQuery("(max-width: 760px)", false, { getInitialValueInEffect: false });
  const doubt = (run: Run) =>
    record.mutate({ kind: "run_doubted", run: run.id, is_doubtful: !run.is_doubtful });
  return (
    <Card className="run-matrix" aria-label={words.matrix}>
      {isNarrow ? (
        <PartRows view={view} onDoubt={doubt} />
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keyboard
        <section className="run-scroll" tabIndex={0} aria-label={words.scroll}>
          <Matrix view={view} onDoubt={doubt} />
        </section>
      )}
      {view.runs.some((run) => run.from_neutral.length + run.not_reached.length > 0) && (
        <p className="quiet">{words.legend}</p>
      )}
      {view.runs.length === 0 && <p className="quiet">{words.none}</p>}
      {view.conflict && <p className="problem">{view.conflict}</p>}
    </Card>
  );
}

/** One row a run, one column a part, filled where it was connected; under each column what is proved of the part. */
function Matrix({ view, onDoubt }: { view: TripView; onDoubt: (run: Run) => void }) {
  return (
    <table>
      <thead>
        <tr>
          <th scope="col">{words.run}</th>
          <th scope="col">{words.reads}</th>
          {view.parts.map((part) => (
            <th key={part.id} scope="col" className="run-part">
              <span>{part.title}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.runs.map((run) => (
          <tr key={run.id} className={run.is_doubtful ? "doubted" : run.in_conflict ? "conflict" : ""}>
            <th scope="row">
              <RunWhen run={run} onDoubt={onDoubt} />
            </th>
            <td className="mono run-reads">
              <RunReads run={run} />
            </td>
            {view.parts.map((part) => (
              <td key={part.id}>
                <RunCell run={run} part={part.id} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <th scope="row" colSpan={2}>
            {words.proved}
            <span className="quiet run-remark">{words.direction(view.unit)}</span>
          </th>
          {view.parts.map((part) => (
            <td key={part.id}>
              <BracketBar bracket={part.bracket} state={part.state} />
              <b className={`run-state ${part.state}`}>
                {part.is_unhealthy ? words.notHealthy : words.states[part.state]}
              </b>
              <span className="quiet run-remark">{part.proved}</span>
              <span className="hidden">
                {words.limit} {part.limit}
              </span>
            </td>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}
