import type { TripView } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { timeOf } from "../../app/times";
import { trip as words } from "../../words/trip";

export type Run = TripView["runs"][number];

function stateOf(run: Run, part: string) {
  if (run.not_reached.includes(part)) return "notReached";
  if (run.from_neutral.includes(part)) return "fromNeutral";
  return run.connected.includes(part) ? "connected" : run.maybe.includes(part) ? "perhaps" : "off";
}

/** Connected is a filled block, perhaps half of one, off an empty one. */
export function RunCell({ run, part }: { run: Run; part: string }) {
  const state = stateOf(run, part);
  return (
    <svg width={26} height={22} role="img" aria-label={words[state]}>
      <rect x={2} y={2} width={22} height={18} rx={3} className="run-cell" />
      {!["off", "notReached"].includes(state) && (
        <rect
          x={2}
          y={2}
          width={state === "perhaps" ? 11 : 22}
          height={18}
          rx={3}
          className="run-cell filled"
        />
      )}
      {state === "fromNeutral" && (
        <text x={13} y={16} className="run-cell-pole">
          N
        </text>
      )}
      {state === "notReached" && <path d="M6 11 H20" className="run-cell" strokeDasharray="3 3" />}
    </svg>
  );
}

/** When a run was made, and the way to take it out of the computation. */
export function RunWhen({ run, onDoubt }: { run: Run; onDoubt: (run: Run) => void }) {
  return (
    <>
      {timeOf(run.at)}
      {run.is_line ? (
        <span className="quiet run-remark"> {words.inTrace}</span>
      ) : (
        <Act look="bare" onClick={() => onDoubt(run)}>
          {run.is_doubtful ? words.trust : words.doubt}
        </Act>
      )}
    </>
  );
}

/** What a run read, and what there is to say of it. */
export function RunReads({ run }: { run: Run }) {
  return (
    <>
      {run.reads}
      {run.polarity && <span className="quiet run-remark">{words.polarities[run.polarity]}</span>}
      {run.to_repeat && <b className="quiet run-remark">{words.repeat}</b>}
      {run.is_doubtful && <span className="quiet run-remark">{words.doubtful}</span>}
    </>
  );
}

export function RunWords({ run, onDoubt }: { run: Run; onDoubt: (run: Run) => void }) {
  return (
    <>
      <span>
        <RunWhen run={run} onDoubt={onDoubt} />
      </span>
      <span className="mono run-reads">
        <RunReads run={run} />
      </span>
    </>
  );
}
