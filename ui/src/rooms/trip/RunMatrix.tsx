import { useEvent } from "../../api/rooms";
import type { TripView } from "../../api/trip";
import { timeOf } from "../../app/times";
import { BracketBar } from "../../drawings/BracketBar";
import { trip as words } from "../../words/trip";

type Run = TripView["runs"][number];

/** One row a run, one column a part, filled where it was connected; under each column what is proved of the part. */
export function RunMatrix({ view, jobId }: { view: TripView; jobId: string }) {
  const record = useEvent(jobId);
  const doubt = (run: Run) =>
    record.mutate({ kind: "run_doubted", run: run.id, is_doubtful: !run.is_doubtful });
  return (
    <section className="card leaf run-matrix" aria-label={words.matrix}>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keyboard */}
      <section className="run-scroll" tabIndex={0} aria-label={words.scroll}>
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
                  {timeOf(run.at)}
                  <button type="button" className="plain" onClick={() => doubt(run)}>
                    {run.is_doubtful ? words.trust : words.doubt}
                  </button>
                </th>
                <td className="mono run-reads">
                  {run.reads}
                  {run.polarity && <span className="quiet">{words.polarities[run.polarity]}</span>}
                  {run.to_repeat && <b className="quiet">{words.repeat}</b>}
                  {run.is_doubtful && <span className="quiet">{words.doubtful}</span>}
                </td>
                {view.parts.map((part) => (
                  <td key={part.id}>
                    <Cell state={stateOf(run, part.id)} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row" colSpan={2}>
                {words.proved}
              </th>
              {view.parts.map((part) => (
                <td key={part.id}>
                  <BracketBar bracket={part.bracket} state={part.state} />
                  <b className={`run-state ${part.state}`}>{words.states[part.state]}</b>
                  <span className="quiet">{part.proved}</span>
                  <span className="hidden">
                    {words.limit} {part.limit}
                  </span>
                </td>
              ))}
            </tr>
          </tfoot>
        </table>
      </section>
      {view.runs.length === 0 && <p className="quiet">{words.none}</p>}
      {view.conflict && <p className="problem">{view.conflict}</p>}
    </section>
  );
}

type CellState = "connected" | "perhaps" | "off";

function stateOf(run: Run, part: string): CellState {
  if (run.connected.includes(part)) return "connected";
  return run.maybe.includes(part) ? "perhaps" : "off";
}

/** Connected is a filled block, perhaps half of one, off an empty one. */
function Cell({ state }: { state: CellState }) {
  return (
    <svg width={26} height={22} role="img" aria-label={words[state]}>
      <rect x={2} y={2} width={22} height={18} rx={3} className="run-cell" />
      {state !== "off" && (
        <rect
          x={2}
          y={2}
          width={state === "perhaps" ? 11 : 22}
          height={18}
          rx={3}
          className="run-cell filled"
        />
      )}
    </svg>
  );
}
