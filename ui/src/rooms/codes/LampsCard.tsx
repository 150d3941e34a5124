import { IconX } from "@tabler/icons-react";
import { type FormEvent, useState } from "react";
import type { Codes, Decoded, EventBody, SchemeView } from "../../api/client";
import { decodeLamps } from "../../api/codes";
import { useEvent } from "../../api/events";
import { useAsk } from "../../api/useAsk";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { timeOf } from "../../app/times";
import { useForm } from "../../app/useForm";
import { codes as words } from "../../words/codes";
import { LampRows } from "./LampRows";

type Props = { view: Codes; scheme: SchemeView; onScheme: (id: string) => void };

/** Tap the lamps as they are seen: the code, its meaning, and the list of what is stored. */
export function LampsCard({ view, scheme, onScheme }: Props) {
  const jobId = view.job.id;
  const [pattern, setPattern] = useState(darkOf(scheme));
  const [list, setList, forget] = useForm<string[]>(`ohmcensus.codes.${jobId}.${scheme.id}`, []);
  const isDark = pattern === darkOf(scheme) && scheme.frames !== 2;
  const { answer: decoded, problem } = useAsk(isDark || !pattern ? null : [scheme.id, pattern], (signal) =>
    decodeLamps(jobId, { scheme: scheme.id, pattern }, signal),
  );
  const event = useEvent(jobId);
  const send = async (body: EventBody) => {
    try {
      await event.mutateAsync(body);
      forget();
      setPattern(darkOf(scheme));
    } catch {
      // said below
    }
  };
  const writeDown = (codes: string[]) => send({ kind: "codes_read", scheme: scheme.id, codes });
  return (
    <Card isStack aria-label={words.lamps}>
      <h2>{words.lamps}</h2>
      {view.schemes.length > 1 && (
        <fieldset className="chips">
          <legend className="hidden">{words.scheme}</legend>
          {view.schemes.map((row) => (
            <Chip key={row.id} isOn={row.id === scheme.id} onClick={() => onScheme(row.id)}>
              {row.title}
            </Chip>
          ))}
        </fieldset>
      )}
      <p className="quiet" style={{ margin: 0 }}>
        {scheme.look}
      </p>
      <LampRows scheme={scheme} pattern={pattern} onPattern={setPattern} />
      <div className="code-says" role="status">
        {isDark && <span className="quiet">{words.tap}</span>}
        {problem && <span className="problem">{problem}</span>}
        {decoded && <CodeSays decoded={decoded} />}
      </div>
      <div className="row">
        <Act
          disabled={!decoded || decoded.is_nothing}
          onClick={() => {
            if (decoded) setList([...list, decoded.code]);
            setPattern(darkOf(scheme));
          }}
        >
          {words.add}
        </Act>
        <Act look="plain" onClick={() => setPattern(darkOf(scheme))}>
          {words.clear}
        </Act>
        <Reverse jobId={jobId} scheme={scheme} onPattern={setPattern} />
      </div>
      <h3>{words.list}</h3>
      <ol className="code-list">
        {list.map((code, index) => (
          <li key={`${index}-${code}`}>
            <b className="mono">{code}</b> {meaningOf(scheme, code)}
            <Act
              look="bare"
              aria-label={words.drop(code)}
              onClick={() => setList(list.filter((_, at) => at !== index))}
            >
              <IconX size={18} aria-hidden />
            </Act>
          </li>
        ))}
      </ol>
      <div className="row">
        <Act disabled={list.length === 0 || event.isPending} onClick={() => void writeDown(list)}>
          {words.writeDown}
        </Act>
        <Act look="plain" disabled={list.length > 0 || event.isPending} onClick={() => void writeDown([])}>
          {words.noneStored}
        </Act>
        <EventProblem event={event} />
      </div>
      {view.read.map((read) => (
        <div key={read.at} className="read-before">
          <b>
            {words.readAt} {timeOf(read.at)}
          </b>
          {!read.is_before_test && <span className="quiet"> · {words.afterTest}</span>}
          {read.codes.length === 0 && <p>{words.noneWas}</p>}
          {read.codes.map((row, index) => (
            <div key={`${index}-${row.code}`}>
              <CodeSays decoded={row} />
            </div>
          ))}
        </div>
      ))}
    </Card>
  );
}

function CodeSays({ decoded }: { decoded: Decoded }) {
  return (
    <>
      <b className="mono code">{decoded.is_nothing ? words.nothing : decoded.code}</b>
      {!decoded.is_nothing && (
        <span>
          {decoded.words || <span className="quiet">{words.noMeaning}</span>}
          {decoded.suspects.length > 0 && (
            <span className="quiet">
              {" "}
              · {words.pointsAt(decoded.suspects.map((row) => row.title).join(", "))}
            </span>
          )}
        </span>
      )}
    </>
  );
}

/** The other way round: which lamps must be lit for a code. */
function Reverse({
  jobId,
  scheme,
  onPattern,
}: {
  jobId: string;
  scheme: SchemeView;
  onPattern: (pattern: string) => void;
}) {
  const [code, setCode] = useState("");
  const [problem, setProblem] = useState("");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      onPattern((await decodeLamps(jobId, { scheme: scheme.id, code })).pattern);
      setProblem("");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form className="row reverse" onSubmit={(event) => void submit(event)}>
      <Field
        aria-label={words.reverse}
        placeholder={words.reverseHint}
        value={code}
        maxLength={20}
        error={problem}
        onChange={(typed) => setCode(typed)}
      />
      <Act look="plain" type="submit" disabled={!code.trim()}>
        {words.show}
      </Act>
    </form>
  );
}

function meaningOf(scheme: SchemeView, code: string): string {
  return scheme.meanings.find((row) => row.code === code)?.words ?? "";
}

function darkOf(scheme: SchemeView): string {
  if (scheme.groups > 0) return "";
  const row = "0".repeat(scheme.weights.length);
  return scheme.frames === 2 ? `${row}/${row}` : row;
}
