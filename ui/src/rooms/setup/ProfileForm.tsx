import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { Field, NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { setup } from "../../words/setup";

const words = setup.limits;
const FIGURES = [
  ["class_i_megohm", words.classI],
  ["heating_megohm", words.heating],
  ["class_ii_megohm", words.classII],
  ["part_ma", words.part],
  ["touch_ma", words.touch],
] as const;
/** Empty for the limit that follows from the cord, and from the heating power. */
const OPEN_FIGURES = [
  ["earth_ohm", words.earth, words.byCord],
  ["conductor_ma", words.conductor, words.byHeating],
] as const;
const TICKS = [
  ["is_cord_added", words.cordAdded],
  ["is_held_on_gfci", words.onGfci],
  ["replaces_standard", words.replaces],
] as const;
export type Profile = Schemas["LimitProfile"];
type KindRow = { kind: string; megohm: string };
type Name = (typeof FIGURES)[number][0] | (typeof OPEN_FIGURES)[number][0];
type Typed = {
  title: string;
  figures: Record<Name, string>;
  ticks: Record<(typeof TICKS)[number][0], boolean>;
  kinds: KindRow[];
};

type ProfileFormProps = {
  start: Profile;
  titles: Record<string, string>;
  onKeep: (profile: Profile, done: () => void) => void;
  onCancel: () => void;
};

function typedOf(profile: Profile): Typed {
  const figures = [...FIGURES, ...OPEN_FIGURES].map(([name]) => [name, String(profile[name] ?? "")]);
  const ticks = TICKS.map(([name]) => [name, profile[name] ?? false]);
  return {
    title: profile.title,
    figures: Object.fromEntries(figures),
    ticks: Object.fromEntries(ticks),
    kinds: Object.entries(profile.kinds_megohm ?? {}).map(([kind, megohm]) => ({
      kind,
      megohm: String(megohm),
    })),
  };
}

/** The profile as typed, null where a figure is none. */
function profileOf(start: Profile, typed: Typed): Profile | null {
  const figures = FIGURES.map(([name]) => [name, figure(typed.figures[name])] as const);
  const byKind = typed.kinds.map((row) => [row.kind, figure(row.megohm)] as const);
  const open = OPEN_FIGURES.map(
    ([name]) => [name, typed.figures[name].trim() ? figure(typed.figures[name]) : null] as const,
  );
  const said = open.filter(([, value]) => value !== null);
  if ([...figures, ...byKind, ...said].some(([, value]) => !(Number(value) > 0))) return null;
  return {
    ...start,
    ...typed.ticks,
    ...Object.fromEntries([...figures, ...open]),
    title: typed.title,
    kinds_megohm: Object.fromEntries(byKind),
  };
}

/** Every figure of one's own limits. */
export function ProfileForm({ start, titles, onKeep, onCancel }: ProfileFormProps) {
  const [typed, setTyped, forget] = useForm(`ohmcensus.limits.${start.id}`, typedOf(start));
  const [problem, setProblem] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const profile = profileOf(start, typed);
    setProblem(profile ? "" : words.bad);
    if (profile) onKeep(profile, () => forget());
  };
  const figureField = (name: Name, label: string, otherwise = "") => (
    <NumberField
      key={name}
      label={label}
      placeholder={otherwise}
      value={typed.figures[name]}
      onChange={(said) => setTyped({ ...typed, figures: { ...typed.figures, [name]: said } })}
    />
  );
  return (
    <form className="stack" onSubmit={submit} aria-label={words.own}>
      <Field
        label={words.name}
        value={typed.title}
        maxLength={80}
        onChange={(title) => setTyped({ ...typed, title })}
      />
      {FIGURES.map(([name, label]) => figureField(name, label))}
      {OPEN_FIGURES.map(([name, label, otherwise]) => figureField(name, label, otherwise))}
      {TICKS.map(([name, label]) => (
        <label key={name} className="row tick">
          <input
            type="checkbox"
            checked={typed.ticks[name]}
            onChange={(event) =>
              setTyped({ ...typed, ticks: { ...typed.ticks, [name]: event.currentTarget.checked } })
            }
          />
          {label}
        </label>
      ))}
      <KindRows rows={typed.kinds} titles={titles} onChange={(kinds) => setTyped({ ...typed, kinds })} />
      <Problem text={problem} />
      <div className="row">
        <Act type="submit" disabled={!typed.title.trim()}>
          {setup.keep}
        </Act>
        <Act
          look="bare"
          onClick={() => {
            forget();
            onCancel();
          }}
        >
          {setup.cancel}
        </Act>
      </div>
    </form>
  );
}

type KindRowsProps = { rows: KindRow[]; titles: Record<string, string>; onChange: (rows: KindRow[]) => void };

/** Limits of single kinds of part; each kind once. */
function KindRows({ rows, titles, onChange }: KindRowsProps) {
  const free = Object.keys(titles).filter((kind) => !rows.some((row) => row.kind === kind));
  const change = (index: number, part: Partial<KindRow>) =>
    onChange(rows.map((row, at) => (at === index ? { ...row, ...part } : row)));
  return (
    <fieldset className="stack plain-set">
      <legend>{words.kinds}</legend>
      {rows.map((row, index) => (
        <div className="row" key={row.kind}>
          <NativeSelect
            label={words.kind}
            value={row.kind}
            data={[row.kind, ...free].map((kind) => ({ value: kind, label: titles[kind] ?? kind }))}
            onChange={(event) => change(index, { kind: event.currentTarget.value })}
          />
          <NumberField
            label={words.kindLimit}
            value={row.megohm}
            onChange={(typed) => change(index, { megohm: typed })}
          />
          <Act look="bare" onClick={() => onChange(rows.filter((_, at) => at !== index))}>
            {words.removeKind}
          </Act>
        </div>
      ))}
      {free[0] && (
        <Act look="plain" onClick={() => onChange([...rows, { kind: free[0] ?? "", megohm: "" }])}>
          {words.addKind}
        </Act>
      )}
    </fieldset>
  );
}
