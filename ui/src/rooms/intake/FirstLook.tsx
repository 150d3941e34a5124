import { IconCheck, IconX } from "@tabler/icons-react";
import { type FormEvent, useState } from "react";
import type { Intake } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { ReadingField } from "../../app/ReadingField";
import { VerdictMark, verdictColour } from "../../drawings/VerdictMark";
import { look as words } from "../../words/intake";
import { EndHere } from "./EndJob";

type Check = Intake["checks"][number];
type Outside = Intake["outside"][number];

/** Outlet, cord, and what eye and hand can tell: fast to log, each may end the job. */
export function FirstLook({ view }: { view: Intake }) {
  const jobId = view.job.id;
  const outlet = view.outside.filter((row) => !row.is_at_plug && !row.is_running);
  const running = view.outside.filter((row) => row.is_running);
  const cord = view.outside.filter((row) => row.is_at_plug);
  const isDue = (view.complaint.symptoms ?? []).length > 0;
  return (
    <Card isStack id="look" aria-label={words.title} aria-current={isDue ? "step" : undefined}>
      <h2>{words.title}</h2>
      <p className="quiet" style={{ margin: 0 }}>
        {words.caution}
      </p>
      <h3 id="outlet">{words.outlet}</h3>
      <Readings jobId={jobId} rows={outlet} />
      <p role="status" className={view.outlet.finding === "right" ? "outlet-says right" : "outlet-says"}>
        {view.outlet.words}
      </p>
      {view.outlet.ends_with && <EndHere jobId={jobId} why={view.outlet.ends_with} />}
      <h3>{words.cord}</h3>
      <PlugInHand view={view} />
      <Readings jobId={jobId} rows={cord} />
      <ul className="checks">
        {view.checks.map((check) => (
          <CheckRow key={check.id} jobId={jobId} check={check} />
        ))}
      </ul>
      {running.length > 0 && (
        <>
          <h3>{words.running}</h3>
          <Readings jobId={jobId} rows={running} />
        </>
      )}
    </Card>
  );
}

/** The pulled plug in the hand, covers on: said once, then a source and no voltage at its pins. */
function PlugInHand({ view }: { view: Intake }) {
  const event = useEvent(view.job.id);
  const { cut } = view.job.power;
  if (view.job.safety === "dead") return null;
  if (cut !== "plug_in_hand") {
    return (
      <div className="row">
        <Act
          disabled={event.isPending}
          onClick={() => event.mutate({ kind: "isolated", how: "plug_in_hand" })}
        >
          {words.inHand}
        </Act>
        <EventProblem event={event} />
      </div>
    );
  }
  return (
    <ul className="outside-lines">
      {view.hand.map((row) => (
        <li key={row.id}>
          <div>
            <b>{row.title}</b>
            <span className="quiet">
              {words.should} {row.limit}
            </span>
          </div>
          {row.is_good && <span className="mono now">{row.reads}</span>}
          {row.is_next && <ReadingField jobId={view.job.id} typed={row.typed} label={row.title} />}
        </li>
      ))}
    </ul>
  );
}

function Readings({ jobId, rows }: { jobId: string; rows: Outside[] }) {
  return (
    <ul className="outside-lines">
      {rows.map((row) => (
        <li key={row.key}>
          <div>
            <b>{row.title}</b>
            <span className="quiet">{row.verdict ? row.sentence : `${words.should} ${row.should}`}</span>
          </div>
          {row.verdict && (
            <span className="mono now" style={{ color: verdictColour(row.verdict) }}>
              <VerdictMark verdict={row.verdict} size={40} />
              {row.reads}
            </span>
          )}
          <ReadingField jobId={jobId} typed={row.typed} label={`${row.part_title}, ${row.title}`} />
        </li>
      ))}
    </ul>
  );
}

function CheckRow({ jobId, check }: { jobId: string; check: Check }) {
  const event = useEvent(jobId);
  const [note, setNote] = useState(check.words);
  const say = (outcome: "good" | "bad", said: string) =>
    event.mutate({ kind: "checked", check: check.id, outcome, words: said });
  const keepNote = (form: FormEvent) => {
    form.preventDefault();
    say("bad", note);
  };
  return (
    <li aria-label={check.title}>
      <div className="check-head">
        <div>
          <b>{check.title}</b>
          <span className="quiet">{check.how}</span>
        </div>
        <fieldset className="row">
          <legend className="hidden">{check.how}</legend>
          <Chip isOn={check.outcome === "good"} onClick={() => say("good", "")}>
            <IconCheck size={18} aria-hidden />
            {words.good}
          </Chip>
          <Chip isOn={check.outcome === "bad"} onClick={() => say("bad", note)}>
            <IconX size={18} aria-hidden />
            {words.bad}
          </Chip>
        </fieldset>
      </div>
      <EventProblem event={event} />
      {check.outcome === "bad" && (
        <>
          <form className="row" onSubmit={keepNote}>
            <Field
              className="grow"
              aria-label={`${words.note}: ${check.title}`}
              placeholder={words.note}
              value={note}
              maxLength={300}
              onChange={(typed) => setNote(typed)}
            />
            <Act look="plain" type="submit" disabled={note === check.words}>
              {words.keepNote}
            </Act>
          </form>
          {check.ends_with && <EndHere jobId={jobId} why={check.ends_with} />}
        </>
      )}
    </li>
  );
}
