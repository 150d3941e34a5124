import type { Line } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { timeOf } from "../../app/times";
import { ShortRuler } from "../../drawings/ShortRuler";
import { line as words } from "../../words/trace";
import { LineNote } from "./LineNote";

type Props = { jobId: string; line: Line; onCorrect: () => void; onTakeBack: (readingId: string) => void };

/** All there is to say of one line: what it reads and means, how it is measured, what it does not show, its history. */
export function Evidence({ jobId, line, onCorrect, onTakeBack }: Props) {
  const readingId = line.reading_id;
  return (
    <div id="evidence" className="evidence" tabIndex={-1} aria-live="polite">
      {line.verdict && (
        <>
          <p>{line.sentence}</p>
          {line.voided && <p className="notice">{words.voided(line.voided, timeOf(line.voided_at))}</p>}
          {line.rejudged && <p className="notice">{line.rejudged}</p>}
          {line.at_work && <p className="quiet">{line.at_work}</p>}
        </>
      )}
      {line.rest && <p className="notice">{line.rest}</p>}
      {line.ruler && line.unit !== "ohm" && (
        <ShortRuler ruler={line.ruler} verdict={line.verdict ?? null} width={340} labels />
      )}
      {readingId && (
        <div className="row">
          <Act look="plain" onClick={onCorrect}>
            {words.correct}
          </Act>
          <Act look="bare" onClick={() => onTakeBack(readingId)}>
            {words.takeBack}
          </Act>
        </div>
      )}
      <dl>
        {!line.verdict && (
          <>
            <dt>{words.shouldRead}</dt>
            <dd>{line.basis}</dd>
          </>
        )}
        <dt>{words.between}</dt>
        <dd>{[...new Set(line.between)].join(" — ")}</dd>
        {line.state && (
          <>
            <dt>{words.how}</dt>
            <dd>
              {line.state}
              {line.behind && `, ${line.behind.toLowerCase()}`}. {line.advice}
            </dd>
          </>
        )}
        {line.with_plug_on && (
          <>
            <dt>{words.plugOn}</dt>
            <dd>{line.with_plug_on}</dd>
          </>
        )}
        {line.reaches.length > 0 && (
          <>
            <dt>{words.reaches}</dt>
            <dd>{reached(line.reaches)}</dd>
          </>
        )}
        {line.blind_to.length > 0 && (
          <>
            <dt>{words.blind}</dt>
            <dd>{line.blind_to.join(", ")}</dd>
          </>
        )}
      </dl>
      <LineNote key={line.key} jobId={jobId} line={line} />
      {line.history.length > 0 && <History line={line} />}
    </div>
  );
}

/** The parts by name; from six on the first, and how many more. */
function reached(parts: string[]): string {
  if (parts.length <= 5) return parts.join(", ");
  return words.reachesMore(parts.slice(0, 3).join(", "), parts.length - 3);
}

function History({ line }: { line: Line }) {
  return (
    <>
      <h3>{words.history}</h3>
      <ul>
        {line.history.map((row) => (
          <li key={row.id} className={row.stands ? "" : "gone"}>
            <span className="mono">{row.reads}</span>
            {row.withdrawn ? ` ${words.withdrawn}` : row.stands ? "" : ` ${words.superseded}`}
            {row.loose ? `, ${words.loose}` : row.alone && `, ${words.alone}`}, {timeOf(row.at)}
            {row.who && `, ${row.who}`}
            {row.condition && `, ${row.condition}`}
            {!row.withdrawn && `, ${words.by} ${row.meter}`}
            {!row.withdrawn && row.is_celsius_stated && `, ${row.celsius} °C`}
            {row.override && `, ${words.overridden} ${row.override}`}
          </li>
        ))}
      </ul>
    </>
  );
}
