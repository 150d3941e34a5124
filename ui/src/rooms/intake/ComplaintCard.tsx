import { Checkbox, NativeSelect, Textarea, TextInput } from "@mantine/core";
import { IconCheck, IconX } from "@tabler/icons-react";
import { type FormEvent, useState } from "react";
import type { Intake, NewIntake } from "../../api/client";
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
    <section id="complaint" className="card leaf stack" aria-label={words.complaint}>
      <div className="head">
        <h2>{words.complaint}</h2>
        <KeepingMark intake={intake} />
      </div>
      <Textarea
        size="md"
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
            <button type="button" key={id} className="chip" aria-pressed={isOn} onClick={() => toggle(id)}>
              {isOn && <IconCheck size={18} stroke={3} aria-hidden />}
              {symptom.words}
            </button>
          );
        })}
      </fieldset>
      {chosen.includes("trips") && (
        <div className="pair">
          <NativeSelect
            size="md"
            label={words.device}
            value={complaint.device ?? "unknown"}
            data={view.devices.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) =>
              set({ device: event.currentTarget.value as NonNullable<Complaint["device"]> })
            }
          />
          <NativeSelect
            size="md"
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
      <Altered rows={complaint.alterations ?? []} onChange={(alterations) => set({ alterations })} />
    </section>
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
  const [what, setWhat] = useState("");
  const [by, setBy] = useState("");
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!what.trim()) return;
    onChange([...rows, { words: what, by }]);
    setWhat("");
    setBy("");
  };
  return (
    <div className="found-list">
      <h3>{words.tried}</h3>
      <Found
        rows={rows.map((row) => (row.by ? `${row.words} (${row.by})` : row.words))}
        onRemove={(i) => onChange(rows.filter((_, at) => at !== i))}
      />
      <form className="row" onSubmit={add}>
        <TextInput
          size="md"
          className="grow"
          aria-label={words.triedWhat}
          placeholder={words.triedWhat}
          value={what}
          maxLength={300}
          onChange={(event) => setWhat(event.currentTarget.value)}
        />
        <TextInput
          size="md"
          className="by"
          aria-label={words.triedBy}
          placeholder={words.triedBy}
          value={by}
          maxLength={80}
          onChange={(event) => setBy(event.currentTarget.value)}
        />
        <button type="submit" className="plain bordered" aria-label={`${words.add}: ${words.tried}`}>
          {words.add}
        </button>
      </form>
    </div>
  );
}

type Alteration = NonNullable<Complaint["alterations"]>[number];

function Altered({ rows, onChange }: { rows: Alteration[]; onChange: (rows: Alteration[]) => void }) {
  const [what, setWhat] = useState("");
  const [isBypass, setIsBypass] = useState(false);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!what.trim()) return;
    onChange([...rows, { words: what, is_bypass: isBypass }]);
    setWhat("");
    setIsBypass(false);
  };
  return (
    <div className="found-list">
      <h3>{words.altered}</h3>
      <Found
        rows={rows.map((row) => (row.is_bypass ? `${row.words}: ${words.bypassed}` : row.words))}
        onRemove={(i) => onChange(rows.filter((_, at) => at !== i))}
      />
      <form className="row" onSubmit={add}>
        <TextInput
          size="md"
          className="grow"
          aria-label={words.alteredWhat}
          placeholder={words.alteredWhat}
          value={what}
          maxLength={300}
          onChange={(event) => setWhat(event.currentTarget.value)}
        />
        <Checkbox
          label={words.bypass}
          checked={isBypass}
          onChange={(event) => setIsBypass(event.currentTarget.checked)}
        />
        <button type="submit" className="plain bordered" aria-label={`${words.add}: ${words.altered}`}>
          {words.add}
        </button>
      </form>
    </div>
  );
}

function Found({ rows, onRemove }: { rows: string[]; onRemove: (index: number) => void }) {
  if (rows.length === 0) return null;
  return (
    <ul>
      {rows.map((row, index) => (
        <li key={`${index}-${row}`}>
          {row}
          <button
            type="button"
            className="plain"
            aria-label={words.remove(row)}
            onClick={() => onRemove(index)}
          >
            <IconX size={18} aria-hidden />
          </button>
        </li>
      ))}
    </ul>
  );
}
