import { useState } from "react";
import { Link } from "react-router";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { Plate, Question } from "../../api/suspects";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { NumberField } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { figure } from "../../app/figure";
import { suspects as words } from "../../words/suspects";

type Props = { jobId: string; ask: Question[]; onTake: (line: string) => void };

/** One test, why, how long, and what it would read under the leading suspects. */
export function AskNext({ jobId, ask, onTake }: Props) {
  const record = useEvent(jobId);
  const send = (body: EventBody) => record.mutate(body);
  const [first, ...others] = ask;
  if (!first) return null;
  return (
    <Card className="ask" aria-label={words.ask}>
      <div className="ask-head">
        <h2>{words.ask}</h2>
        <span className="quiet">{words.minutes(first.minutes)}</span>
      </div>
      <p className="big">{first.title}</p>
      <p className="quiet">{first.why}</p>
      {first.also.length > 0 && (
        <p className="ask-also">
          <span className="quiet">{words.also}</span>
          {first.also.map((row) => (
            <Act look="bare" key={row.id} onClick={() => onTake(row.id)}>
              {row.words}
            </Act>
          ))}
        </p>
      )}
      {first.before.length > 0 && (
        <ol className="ask-before" aria-label={words.before}>
          {first.before.map((row, place) => (
            <li key={row}>
              {place === 0 && first.is_safe_first ? <Link to={`/jobs/${jobId}/safe`}>{row}</Link> : row}
            </li>
          ))}
        </ol>
      )}
      <EventProblem event={record} />
      <div className="ask-foot">
        <Answer question={first} onTake={onTake} onSend={send} isPending={record.isPending} />
        {first.expects.length + first.what_ifs.length > 0 && <Meaning question={first} />}
        <details>
          <summary>{words.leave}</summary>
          <div className="row">
            {words.whys.map((why) => (
              <Act
                look="plain"
                key={why.id}
                disabled={record.isPending}
                onClick={() => send({ kind: "skipped", test: first.test, why: why.id })}
              >
                {why.words}
              </Act>
            ))}
          </div>
        </details>
        {others.length > 0 && (
          <details>
            <summary>{words.more}</summary>
            <ul>
              {others.map((row) => (
                <li key={row.test}>
                  {row.kind === "test" ? (
                    <Act look="bare" onClick={() => onTake(row.test)}>
                      {row.title}
                    </Act>
                  ) : (
                    row.title
                  )}{" "}
                  <span className="quiet">{words.minutes(row.minutes)}</span>
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </Card>
  );
}

/** What it would read under each suspect, and where each answer would lead. */
function Meaning({ question }: { question: Question }) {
  return (
    <details>
      <summary>{words.whatIf}</summary>
      {question.expects.length > 0 && (
        <>
          <p className="quiet">{words.expects}</p>
          <dl className="ask-expects">
            {question.expects.map((row) => (
              <div key={row.part}>
                <dt>{row.title}</dt>
                <dd className="mono">{row.reads}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
      <dl className="ask-expects">
        {question.what_ifs.map((row) => (
          <div key={row.reads}>
            <dt>{row.reads}</dt>
            <dd>{row.leads}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}

type AnswerProps = {
  question: Question;
  onTake: (line: string) => void;
  onSend: (body: EventBody) => void;
  isPending: boolean;
};

/** A reading is taken in the quick line; what is looked at or watched is answered here. */
function Answer({ question, onTake, onSend, isPending }: AnswerProps) {
  if (question.plate) return <PlateAnswer plate={question.plate} onSend={onSend} isPending={isPending} />;
  if (question.kind === "test") {
    return <Act onClick={() => onTake(question.test)}>{words.take}</Act>;
  }
  const body = (outcome: string): EventBody =>
    question.kind === "run"
      ? { kind: "run_watched", outcome }
      : { kind: "checked", check: question.test, outcome: outcome as "good" | "bad", words: "" };
  return (
    <div className="row ask-answers">
      {question.outcomes.map((row) => (
        <Act look="plain" key={row.id} disabled={isPending} onClick={() => onSend(body(row.id))}>
          {row.words}
        </Act>
      ))}
    </div>
  );
}

type PlateProps = { plate: Plate; onSend: (body: EventBody) => void; isPending: boolean };

/** What is stamped on the part is typed here: it holds before what the sheet of the type says. */
function PlateAnswer({ plate, onSend, isPending }: PlateProps) {
  const [typed, setTyped] = useState("");
  const value = figure(typed);
  const isNumber = typed.trim() !== "" && value > 0;
  return (
    <form
      className="row ask-plate"
      onSubmit={(event) => {
        event.preventDefault();
        if (isNumber)
          onSend({ kind: "stamped", part: plate.part, rating: plate.rating, value: value * plate.factor });
      }}
    >
      <NumberField
        label={words.stamped(plate.unit)}
        description={plate.stated && words.sheetSays(plate.stated)}
        value={typed}
        error={typed !== "" && !isNumber && words.notANumber}
        onChange={(typed) => setTyped(typed)}
      />
      <Act type="submit" disabled={isPending || !isNumber}>
        {words.save}
      </Act>
    </form>
  );
}
