import type { MouseEvent } from "react";
import type { Line, Trace } from "../../api/client";
import type { Objective, SuspectsView } from "../../api/suspects";
import { NextBar } from "../../app/NextBar";
import { timeOf } from "../../app/times";
import { ShortRuler } from "../../drawings/ShortRuler";
import { VerdictMark, verdictColour } from "../../drawings/VerdictMark";
import { line as words } from "../../words/trace";
import { AskNext } from "./AskNext";
import { EndingCard } from "./EndingCard";
import { LineNote } from "./LineNote";
import { SuspectsCard } from "./SuspectsCard";

type Props = {
  jobId: string;
  trace: Trace;
  line: Line | null;
  onTake: (key: string) => void;
  onCorrect: () => void;
  onTakeBack: (readingId: string) => void;
  suspects: SuspectsView | undefined;
  onObjective: (objective: Objective) => void;
};

/** Whoever types taps once: without the focus the phone's rail grows back and moves the button from under the finger. */
const keepFocus = (event: MouseEvent) => {
  if ((event.target as Element).closest("a, button, summary")) event.preventDefault();
};

/** Right column: what to do next, and all there is to say of the line in question. */
export function LinePanel(props: Props) {
  const { jobId, trace, line, onTake, onCorrect, onTakeBack, suspects, onObjective } = props;
  const next = trace.lines.find((l) => l.key === trace.next_line);
  const hasNext = suspects !== undefined && !suspects.preparing;
  return (
    <aside className="side" onMouseDown={keepFocus}>
      {suspects && <AskNext jobId={jobId} ask={suspects.ask} onTake={onTake} />}
      {suspects && <EndingCard jobId={jobId} view={suspects} />}
      {!hasNext && next?.key !== line?.key && (
        <section className="card next">
          {next ? (
            <>
              <div>
                <h2>{words.next}</h2>
                <p className="big">
                  {next.part_title}, {next.title}
                </p>
                <p className="quiet">
                  {next.should} · {next.minutes} min · {words.nextWhy}
                </p>
              </div>
              <button type="button" className="act" onClick={() => onTake(next.key)}>
                {words.take}
              </button>
            </>
          ) : (
            <p>{words.allAsked}</p>
          )}
        </section>
      )}
      {(line || !suspects) && (
        <section className="card" id="evidence" tabIndex={-1} aria-live="polite">
          {line ? (
            <Evidence line={line} onCorrect={onCorrect} onTakeBack={onTakeBack} />
          ) : (
            <p className="quiet">{words.pick}</p>
          )}
          {line && <LineNote key={line.key} jobId={jobId} line={line} />}
          {line && line.history.length > 0 && <History line={line} />}
        </section>
      )}
      {suspects && <SuspectsCard view={suspects} onObjective={onObjective} />}
      <NextBar jobId={jobId} />
    </aside>
  );
}

function Evidence({
  line,
  onCorrect,
  onTakeBack,
}: {
  line: Line;
  onCorrect: () => void;
  onTakeBack: (id: string) => void;
}) {
  const readingId = line.reading_id;
  return (
    <>
      <p className="big">
        {line.part_title}, {line.title}
      </p>
      {line.verdict && (
        <>
          <div className="reading-now mono" style={{ color: verdictColour(line.verdict) }}>
            <VerdictMark verdict={line.verdict} size={54} />
            {line.reads}
          </div>
          <p>{line.sentence}</p>
          {line.voided && <p className="notice">{words.voided(line.voided, timeOf(line.voided_at))}</p>}
          {line.rejudged && <p className="notice">{line.rejudged}</p>}
          {line.at_work && <p className="quiet">{line.at_work}</p>}
        </>
      )}
      {line.ruler && <ShortRuler ruler={line.ruler} verdict={line.verdict ?? null} width={340} labels />}
      {readingId && (
        <div className="row">
          <button type="button" className="plain bordered" onClick={onCorrect}>
            {words.correct}
          </button>
          <button type="button" className="plain" onClick={() => onTakeBack(readingId)}>
            {words.takeBack}
          </button>
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
              {line.behind && `, ${line.behind.toLowerCase()} off`}. {line.advice}
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
    </>
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
      <h2>{words.history}</h2>
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
