import { useState } from "react";
import type { RepairView } from "../../api/repair";
import { useEvent } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { strip as words } from "../../words/repair";
import { PlugChips } from "./PlugChips";
import { StripForm } from "./StripForm";

/** What came off, in order; one touch turns it round into the reassembly. */
export function StripCard({ view }: { view: RepairView }) {
  const [isTurned, setIsTurned] = useState(false);
  const rows = isTurned ? [...view.stripped].reverse() : view.stripped;
  const whole = view.stripped.filter((row) => row.state === "whole").length;
  return (
    <section className="card leaf" aria-label={words.title}>
      <h2>{words.title}</h2>
      {view.stripped.length === 0 ? (
        <p className="quiet">{words.none}</p>
      ) : (
        <>
          <div className="row strip-head">
            <b>{words.count(whole, view.stripped.length)}</b>
            <button
              type="button"
              className="chip"
              aria-pressed={isTurned}
              onClick={() => setIsTurned(!isTurned)}
            >
              {words.turn}
            </button>
          </div>
          <ol className="strip">
            {rows.map((row) => (
              <StripRow key={row.id} row={row} jobId={view.job.id} isTurned={isTurned && !view.is_over} />
            ))}
          </ol>
        </>
      )}
      {!view.is_over && !isTurned && <StripForm view={view} />}
    </section>
  );
}

type RowProps = { row: RepairView["stripped"][number]; jobId: string; isTurned: boolean };

/** One step; turned round it asks for every fastener and plug. */
function StripRow({ row, jobId, isTurned }: RowProps) {
  const record = useEvent(jobId);
  const [count, setCount] = useState(String(row.count));
  const [plugs, setPlugs] = useState(row.plugs.map((plug) => plug.id));
  const number = Number(count);
  const back = () =>
    record.mutate({
      kind: "strip_back",
      step: row.id,
      fasteners: Number.isInteger(number) ? number : 0,
      plugs,
    });
  return (
    <li className={`strip-${row.state}`}>
      <div className="strip-line">
        <b>{row.words}</b>
        <span>{words.states[row.state]}</span>
      </div>
      {row.fasteners && <span className="quiet">{row.fasteners}</span>}
      {row.plugs.length > 0 && (
        <span className="quiet">
          {words.plugs}: {row.plugs.map((plug) => plug.words).join(", ")}
        </span>
      )}
      {row.state === "partly" && (
        <span className="notice">
          {words.missing}: {row.missing}
        </span>
      )}
      {isTurned && row.state !== "whole" && (
        <div className="row strip-back">
          {row.count > 0 && (
            <label>
              {words.backCount(row.count)}{" "}
              <input
                className="mono"
                inputMode="numeric"
                value={count}
                onChange={(event) => setCount(event.currentTarget.value)}
              />
            </label>
          )}
          <PlugChips
            plugs={row.plugs}
            chosen={plugs}
            say={(plug, isOn) => words.plugIs(plug.words, isOn)}
            onChoose={setPlugs}
          />
          <button
            type="button"
            className="act"
            aria-label={`${words.back}: ${row.words}`}
            disabled={record.isPending}
            onClick={back}
          >
            {words.back}
          </button>
        </div>
      )}
      <Problem error={record.error} />
    </li>
  );
}
