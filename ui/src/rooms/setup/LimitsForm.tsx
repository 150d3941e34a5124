import { NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { Schemas, Settings } from "../../api/client";
import { useChangeSettings, useLimits } from "../../api/hooks";
import { figure } from "../../app/figure";
import { NumberField } from "../../app/NumberField";
import { Problem } from "../../app/Problem";
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
type Profile = Schemas["LimitProfile"];
type KindRow = { kind: string; megohm: string };
type Typed = Record<(typeof FIGURES)[number][0] | (typeof OPEN_FIGURES)[number][0], string>;

/** Which limits a leak is judged by; a built-in profile is changed by making it one's own. */
export function LimitsForm({ settings }: { settings: Settings }) {
  const { data } = useLimits();
  const keep = useChangeSettings();
  const own = settings.own_profiles ?? [];
  const all = [...own, ...(data?.profiles ?? [])];
  const [editing, setEditing] = useState<Profile | null>(null);
  const chosen = all.find((row) => row.id === settings.profile);
  return (
    <section className="card stack" aria-label={words.title}>
      <h2>{words.title}</h2>
      <NativeSelect
        size="md"
        label={words.which}
        value={settings.profile ?? ""}
        data={[{ value: "", label: words.usual }, ...all.map((row) => ({ value: row.id, label: row.title }))]}
        onChange={(event) => keep.mutate({ seen: settings, wanted: { profile: event.currentTarget.value } })}
      />
      {chosen?.basis && <p className="quiet">{chosen.basis}</p>}
      {chosen?.replaces_standard && (
        <p>{words.looser((data?.loosened[chosen.id] ?? []).join(", ") || words.nothingLooser)}</p>
      )}
      <Problem error={keep.error} />
      {editing ? (
        <ProfileForm
          key={editing.id}
          start={editing}
          titles={data?.kinds ?? {}}
          onKeep={(profile) => {
            const others = own.filter((row) => row.id !== profile.id);
            keep.mutate(
              { seen: settings, wanted: { profile: profile.id, own_profiles: [...others, profile] } },
              { onSuccess: () => setEditing(null) },
            );
          }}
        />
      ) : (
        <button
          type="button"
          className="plain bordered"
          onClick={() => setEditing(copyOf(chosen ?? all[0], own))}
        >
          {words.change}
        </button>
      )}
    </section>
  );
}

function copyOf(profile: Profile | undefined, own: Profile[]): Profile {
  if (profile && own.includes(profile)) return profile;
  return {
    ...profile,
    id: `own_${own.length + 1}_${Date.now().toString(36)}`,
    title: words.own,
    basis: profile ? profile.title : "",
  };
}

type ProfileFormProps = {
  start: Profile;
  titles: Record<string, string>;
  onKeep: (profile: Profile) => void;
};

function ProfileForm({ start, titles, onKeep }: ProfileFormProps) {
  const [title, setTitle] = useState(start.title);
  const [typed, setTyped] = useState<Typed>(
    () =>
      Object.fromEntries(
        [...FIGURES, ...OPEN_FIGURES].map(([name]) => [name, String(start[name] ?? "")]),
      ) as Typed,
  );
  const [kinds, setKinds] = useState<KindRow[]>(() =>
    Object.entries(start.kinds_megohm ?? {}).map(([kind, megohm]) => ({ kind, megohm: String(megohm) })),
  );
  const [isCordAdded, setIsCordAdded] = useState(start.is_cord_added ?? false);
  const [replaces, setReplaces] = useState(start.replaces_standard ?? false);
  const [isOnGfci, setIsOnGfci] = useState(start.is_held_on_gfci ?? false);
  const [problem, setProblem] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const figures = FIGURES.map(([name]) => [name, figure(typed[name])] as const);
    const byKind = kinds.map((row) => [row.kind, figure(row.megohm)] as const);
    const open = OPEN_FIGURES.map(
      ([name]) => [name, typed[name].trim() ? figure(typed[name]) : null] as const,
    );
    const said = open.filter(([, value]) => value !== null);
    if ([...figures, ...byKind, ...said].some(([, value]) => !(Number(value) > 0)))
      return setProblem(words.bad);
    onKeep({
      ...start,
      title,
      ...Object.fromEntries([...figures, ...open]),
      is_cord_added: isCordAdded,
      replaces_standard: replaces,
      is_held_on_gfci: isOnGfci,
      kinds_megohm: Object.fromEntries(byKind),
    });
  };
  return (
    <form className="stack" onSubmit={submit} aria-label={words.own}>
      <TextInput
        size="md"
        label={words.name}
        value={title}
        maxLength={80}
        onChange={(event) => setTitle(event.currentTarget.value)}
      />
      {FIGURES.map(([name, label]) => (
        <NumberField
          key={name}
          label={label}
          value={typed[name]}
          onChange={(event) => setTyped({ ...typed, [name]: event.currentTarget.value })}
        />
      ))}
      {OPEN_FIGURES.map(([name, label, otherwise]) => (
        <NumberField
          key={name}
          label={label}
          placeholder={otherwise}
          value={typed[name]}
          onChange={(event) => setTyped({ ...typed, [name]: event.currentTarget.value })}
        />
      ))}
      <Tick label={words.cordAdded} checked={isCordAdded} onChange={setIsCordAdded} />
      <Tick label={words.onGfci} checked={isOnGfci} onChange={setIsOnGfci} />
      <Tick label={words.replaces} checked={replaces} onChange={setReplaces} />
      <KindRows rows={kinds} titles={titles} onChange={setKinds} />
      <Problem text={problem} />
      <button type="submit" className="act" disabled={!title.trim()}>
        {setup.keep}
      </button>
    </form>
  );
}

type TickProps = { label: string; checked: boolean; onChange: (checked: boolean) => void };

function Tick({ label, checked, onChange }: TickProps) {
  return (
    <label className="row" style={{ minHeight: 44, flexWrap: "nowrap" }}>
      <input type="checkbox" checked={checked} onChange={(event) => onChange(event.currentTarget.checked)} />
      {label}
    </label>
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
            size="md"
            label={words.kind}
            value={row.kind}
            data={[row.kind, ...free].map((kind) => ({ value: kind, label: titles[kind] ?? kind }))}
            onChange={(event) => change(index, { kind: event.currentTarget.value })}
          />
          <NumberField
            label={words.kindLimit}
            value={row.megohm}
            onChange={(event) => change(index, { megohm: event.currentTarget.value })}
          />
          <button
            type="button"
            className="plain"
            onClick={() => onChange(rows.filter((_, at) => at !== index))}
          >
            {words.removeKind}
          </button>
        </div>
      ))}
      {free[0] && (
        <button
          type="button"
          className="plain bordered"
          onClick={() => onChange([...rows, { kind: free[0] ?? "", megohm: "" }])}
        >
          {words.addKind}
        </button>
      )}
    </fieldset>
  );
}
