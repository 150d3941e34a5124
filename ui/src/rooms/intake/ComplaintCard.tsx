import { Checkbox, NativeSelect, Textarea } from "@mantine/core";
import { IconCheck, IconX } from "@tabler/icons-react";
import { type FormEvent, type ReactNode, useState } from "react";
import type { Intake, NewIntake } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { Field } from "../../app/controls/Field";
import { intake as words } from "../../words/intake";
import type { useIntakeDraft } from "./useIntakeDraft";

type Draft = ReturnType<typeof useIntakeDraft>;
type Complaint = NewIntake["complaint"];

/** The customer's words, sorted into symptoms; what was tried, and what was found altered. */
export function ComplaintCard({ view, intake }: { view: Intake; intake: Draft }) {
  const { complaint } = intake.draft;
  const chosen = complaint.symptoms ?? [];
  const set = (part: Partial<Complaint>) => intake.change({ complaint: { ...complaint, ...part } });
  const toggle = (id: (typeof chosen)[number]) =>
    set({ symptoms: chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id] });
  return (
    <Card isStack id="complaint" aria-label={words.complaint}>
      <div className="head">
        <h2>{words.complaint}</h2>
        <KeepingMark intake={intake} />
      </div>
      <Textarea
        label={words.words}
        value={complaint.words ?? ""}
        onChange={(event) => set({ words: event.currentTarget.value })}
        autosize
        minRows={2}
        maxLength={2000}
      />
      <fieldset className="chips">
        <legend>{words.symptoms}</legend>
        {view.symptoms.map((symptom) => {
          const id = symptom.id as (typeof chosen)[number];
          const isOn = chosen.includes(id);
          return (
            <Chip key={id} isOn={isOn} onClick={() => toggle(id)}>
              {isOn && <IconCheck size={18} stroke={3} aria-hidden />}
              {symptom.words}
            </Chip>
          );
        })}
      </fieldset>
      {view.asks_shock && !chosen.includes("shock") && !complaint.no_shock && (
        <fieldset className="chips notice">
          <legend>{words.anyShock}</legend>
          <Chip onClick={() => toggle("shock")}>{words.shockFelt}</Chip>
          <Chip onClick={() => set({ no_shock: true })}>{words.noShock}</Chip>
        </fieldset>
      )}
      {chosen.includes("trips") && (
        <div className="pair">
          <NativeSelect
            label={words.device}
            value={complaint.device ?? "unknown"}
            data={view.devices.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) =>
              set({ device: event.currentTarget.value as NonNullable<Complaint["device"]> })
            }
          />
          <NativeSelect
            label={words.moment}
            value={complaint.moment ?? "unknown"}
            data={view.moments.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) =>
              set({ moment: event.currentTarget.value as NonNullable<Complaint["moment"]> })
            }
          />
        </div>
      )}
      <Tried rows={complaint.tried ?? []} onChange={(tried) => set({ tried })} />
      <Altered
        kept={view.complaint.alterations ?? []}
        rows={complaint.alterations ?? []}
        onChange={(alterations) => set({ alterations })}
      />
    </Card>
  );
}

function KeepingMark({ intake }: { intake: Draft }) {
  const said = { kept: words.kept, waiting: words.keeping, keeping: words.keeping }[
    intake.state as "kept" | "waiting" | "keeping"
  ];
  return (
    <span role="status" className={said ? "quiet" : "problem"}>
      {said ?? (intake.state === "problem" ? intake.problem : words.notKept)}
    </span>
  );
}

type Trial = NonNullable<Complaint["tried"]>[number];

function Tried({ rows, onChange }: { rows: Trial[]; onChange: (rows: Trial[]) => void }) {
  const [by, setBy] = useState("");
  return (
    <FoundList
      title={words.tried}
      what={words.triedWhat}
      rows={rows.map((row) => (row.by ? `${row.words} (${row.by})` : row.words))}
      onRemove={(index) => onChange(rows.filter((_, at) => at !== index))}
      onAdd={(what) => {
        onChange([...rows, { words: what, by }]);
        setBy("");
      }}
    >
      <Field
        className="by"
        aria-label={words.triedBy}
        placeholder={words.triedBy}
        value={by}
        maxLength={80}
        onChange={(typed) => setBy(typed)}
      />
    </FoundList>
  );
}

type Alteration = NonNullable<Complaint["alterations"]>[number];

type AlteredProps = { kept: Alteration[]; rows: Alteration[]; onChange: (rows: Alteration[]) => void };

/** A bypass that was kept is a danger: it goes by being taken out and tried, in Safe, not by a cross here. */
function Altered({ kept, rows, onChange }: AlteredProps) {
  const [isBypass, setIsBypass] = useState(false);
  return (
    <FoundList
      title={words.altered}
      what={words.alteredWhat}
      rows={rows.map((row) => (row.is_bypass ? `${row.words}: ${words.bypassed}` : row.words))}
      stays={(index) =>
        kept.some((row) => row.is_bypass && rows[index]?.is_bypass && row.words === rows[index]?.words)
      }
      onRemove={(index) => onChange(rows.filter((_, at) => at !== index))}
      onAdd={(what) => {
        onChange([...rows, { words: what, is_bypass: isBypass }]);
        setIsBypass(false);
      }}
    >
      <Checkbox
        label={words.bypass}
        checked={isBypass}
        onChange={(event) => setIsBypass(event.currentTarget.checked)}
      />
    </FoundList>
  );
}

type FoundProps = {
  title: string;
  what: string;
  rows: string[];
  onAdd: (what: string) => void;
  onRemove: (index: number) => void;
  stays?: (index: number) => boolean;
  children: ReactNode;
};

/** A list that grows by one line at a time, with what else is said of each line. */
function FoundList({ title, what, rows, onAdd, onRemove, stays, children }: FoundProps) {
  const [text, setText] = useState("");
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    onAdd(text);
    setText("");
  };
  return (
    <div className="found-list">
      <h3>{title}</h3>
      {rows.length > 0 && (
        <ul>
          {rows.map((row, index) => (
            <li key={`${index}-${row}`}>
              {row}
              {!stays?.(index) && (
                <Act look="bare" aria-label={words.remove(row)} onClick={() => onRemove(index)}>
                  <IconX size={18} aria-hidden />
                </Act>
              )}
            </li>
          ))}
        </ul>
      )}
      <form className="row" onSubmit={add}>
        <Field
          className="grow"
          aria-label={what}
          placeholder={what}
          value={text}
          maxLength={300}
          onChange={(typed) => setText(typed)}
        />
        {children}
        <Act look="plain" type="submit" aria-label={`${words.add}: ${title}`}>
          {words.add}
        </Act>
      </form>
    </div>
  );
}
