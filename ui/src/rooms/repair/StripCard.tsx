import { TextInput } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { RepairView } from "../../api/repair";
import { useEvent } from "../../api/rooms";
import { PhotoPick } from "../../app/PhotoPick";
import { Problem } from "../../app/Problem";
import { strip as words } from "../../words/repair";
import { PlugChips } from "./PlugChips";
import { StripForm } from "./StripForm";

/** What came off, in order; one touch turns it round into the reassembly. */
export function StripCard({ view }: { view: RepairView }) {
  const [isTurned, setIsTurned] = useState(false);
  const rows = isTurned ? [...view.strip.steps].reverse() : view.strip.steps;
  const whole = view.strip.steps.filter((row) => row.state === "whole").length;
  return (
    <section className="card leaf" aria-label={words.title}>
      <h2>{words.title}</h2>
      {view.strip.steps.length === 0 ? (
        <p className="quiet">{words.none}</p>
      ) : (
        <>
          <div className="row strip-head">
            <b>
              {words.count(whole, view.strip.steps.length)}
              {view.strip.spent && <span className="quiet"> · {words.took(view.strip.spent)}</span>}
            </b>
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
              <StripRow key={row.id} row={row} view={view} isTurned={isTurned} />
            ))}
          </ol>
        </>
      )}
      {!view.is_over && view.job.safety !== "dead" && (
        <p className="notice">
          {words.notDead} <Link to={`/jobs/${view.job.id}/safe`}>{words.toSafe}</Link>
        </p>
      )}
      {!view.is_over && !isTurned && <StripForm view={view} />}
    </section>
  );
}

type RowProps = { row: RepairView["strip"]["steps"][number]; view: RepairView; isTurned: boolean };

/** One step; turned round it asks for every fastener and plug. */
function StripRow({ row, view, isTurned }: RowProps) {
  const record = useEvent(view.job.id);
  const [count, setCount] = useState(String(row.count));
  const [because, setBecause] = useState("");
  const [plugs, setPlugs] = useState(row.plugs.map((plug) => plug.id));
  const number = Number(count);
  const isShort = number < row.count;
  const back = () =>
    record.mutate({
      kind: "strip_back",
      step: row.id,
      fasteners: Number.isInteger(number) ? number : 0,
      plugs,
      ...(isShort && because.trim() ? { because } : {}),
    });
  return (
    <li className={`strip-${row.state}`}>
      <div className="strip-line">
        <b>{row.words}</b>
        <span>{words.states[row.state]}</span>
      </div>
      {(row.fasteners || row.minutes) && (
        <span className="quiet">{[row.fasteners, row.minutes].filter(Boolean).join(" · ")}</span>
      )}
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
      <div className="row wrap">
        {row.photos.map((photo) => (
          <a key={photo.id} href={photo.address} target="_blank" rel="noreferrer" className="strip-photo">
            <img src={isTurned ? photo.address : photo.small} alt={words.photoOf(row.words)} loading="lazy" />
          </a>
        ))}
        {!view.is_over && !isTurned && (
          <PhotoPick jobId={view.job.id} of="step" event={row.id} label={words.photo} />
        )}
      </div>
      {isTurned && !view.is_over && row.state !== "whole" && (
        <div className="row strip-back">
          {row.count > 0 && (
            <label>
              {words.backCount(row.count)}{" "}
              <input
                className="mono figure-field count"
                inputMode="numeric"
                value={count}
                onChange={(event) => setCount(event.currentTarget.value)}
              />
            </label>
          )}
          {isShort && (
            <TextInput
              size="md"
              className="grow"
              aria-label={words.leftOut}
              placeholder={words.leftOut}
              value={because}
              maxLength={300}
              onChange={(event) => setBecause(event.currentTarget.value)}
            />
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
