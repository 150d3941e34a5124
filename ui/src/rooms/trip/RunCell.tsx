import type { TripView } from "../../api/trip";
import { timeOf } from "../../app/times";
import { trip as words } from "../../words/trip";

export type Run = TripView["runs"][number];

/** Connected is a filled block, perhaps half of one, off an empty one. */
export function RunCell({ run, part }: { run: Run; part: string }) {
  const state = run.connected.includes(part) ? "connected" : run.maybe.includes(part) ? "perhaps" : "off";
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

/** When a run was made, and the way to take it out of the computation. */
export function RunWhen({ run, onDoubt }: { run: Run; onDoubt: (run: Run) => void }) {
  return (
    <>
      {timeOf(run.at)}
      <button type="button" className="plain" onClick={() => onDoubt(run)}>
        {run.is_doubtful ? words.trust : words.doubt}
      </button>
    </>
  );
}

/** What a run read, and what there is to say of it. */
export function RunReads({ run }: { run: Run }) {
  return (
    <>
      {run.reads}
      {run.polarity && <span className="quiet">{words.polarities[run.polarity]}</span>}
      {run.to_repeat && <b className="quiet">{words.repeat}</b>}
      {run.is_doubtful && <span className="quiet">{words.doubtful}</span>}
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
