import { type FormEvent, useState } from "react";
import type { Schemas, Settings } from "../../api/client";
import { useChangeSettings, useLimits } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { fullDayOf } from "../../app/times";
import { useForm } from "../../app/useForm";
import { setup } from "../../words/setup";

const words = setup.texts;
type Text = Schemas["TextView"];
type Confirmation = Schemas["Confirmation"];

/** Which figures were read against the text that they are taken from, by whom and when; until then they are from memory. */
export function TextsCard({ settings }: { settings: Settings }) {
  const { data } = useLimits();
  const [confirming, setConfirming] = useState("");
  const keep = useChangeSettings();
  const save = (confirmation: Confirmation, done: () => void) => {
    const others = (settings.confirmations ?? []).filter((row) => row.text !== confirmation.text);
    keep.mutate(
      { seen: settings, wanted: { confirmations: [...others, confirmation] } },
      {
        onSuccess: () => {
          done();
          setConfirming("");
        },
      },
    );
  };
  return (
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      <p className="quiet">{words.help}</p>
      <ul className="meter-list">
        {data?.texts.map((text) => (
          <li key={text.id}>
            <span className="grow">
              <b>{text.title}</b>
              <br />
              <span className="quiet">{text.figures}</span>
              <br />
              {text.confirmation ? words.confirmed(saidOf(text.confirmation)) : words.fromMemory}
            </span>
            {confirming !== text.id && (
              <Act
                look="plain"
                onClick={() => setConfirming(text.id)}
                aria-label={words.confirmOf(text.title)}
              >
                {text.confirmation ? words.again : words.confirm}
              </Act>
            )}
            {confirming === text.id && (
              <ConfirmForm
                text={text}
                by={settings.technician ?? ""}
                error={keep.error}
                onSave={save}
                onCancel={() => setConfirming("")}
              />
            )}
          </li>
        ))}
      </ul>
    </Card>
  );
}

const saidOf = ({ edition, by, on }: Confirmation) => ({ edition, by, on: fullDayOf(on) });

type ConfirmFormProps = {
  text: Text;
  by: string;
  error: Error | null;
  onSave: (confirmation: Confirmation, done: () => void) => void;
  onCancel: () => void;
};

function ConfirmForm({ text, by, error, onSave, onCancel }: ConfirmFormProps) {
  const start = { edition: "", by, on: new Date().toLocaleDateString("sv-SE") };
  const [typed, setTyped, forget] = useForm(`ohmcensus.text.${text.id}`, start);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSave({ text: text.id, figures: text.figures, ...typed }, () => forget());
  };
  const isWhole = typed.edition.trim() && typed.by.trim() && typed.on;
  return (
    <form className="stack confirm-form" onSubmit={submit} aria-label={words.confirmOf(text.title)}>
      <Field
        label={words.edition}
        placeholder={words.editionHint}
        value={typed.edition}
        maxLength={120}
        data-autofocus
        onChange={(edition) => setTyped({ ...typed, edition })}
      />
      <Field
        label={words.by}
        value={typed.by}
        maxLength={80}
        onChange={(who) => setTyped({ ...typed, by: who })}
      />
      <Field label={words.on} type="date" value={typed.on} onChange={(on) => setTyped({ ...typed, on })} />
      <Problem error={error} />
      <div className="row">
        <Act type="submit" disabled={!isWhole}>
          {setup.keep}
        </Act>
        <Act look="bare" onClick={onCancel}>
          {setup.cancel}
        </Act>
      </div>
    </form>
  );
}
