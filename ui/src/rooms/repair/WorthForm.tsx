import { type FormEvent, useState } from "react";
import type { Assumptions } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
import { Problem } from "../../app/Problem";
import { repair as words } from "../../words/repair";

type Field = keyof typeof words.fields;
type Props = { given: Assumptions; onReckon: (given: Assumptions) => void; onUsual: () => void };

const FIELDS = Object.keys(words.fields) as Field[];
const SHARES = new Set<string>(["mend_fails", "sure"]);
const shown = (field: string, value: number) =>
  String(Number((SHARES.has(field) ? 100 * value : value).toFixed(2)));

/** The figures behind the choices, each of them to be changed. */
export function WorthForm({ given, onReckon, onUsual }: Props) {
  const [typed, setTyped] = useState<Record<string, string>>(() => ({
    ...Object.fromEntries(FIELDS.map((field) => [field, shown(field, given[field] ?? 0)])),
    ...Object.fromEntries(given.offers.map((row) => [`price ${row.condition}`, String(row.price)])),
    ...Object.fromEntries(given.offers.map((row) => [`fails ${row.condition}`, String(100 * row.fails)])),
  }));
  const [problem, setProblem] = useState("");
  const number = (field: string) => figure(typed[field] ?? "");
  const labels: Record<string, string> = {
    ...words.fields,
    ...Object.fromEntries(
      given.offers.flatMap((row) => [
        [`price ${row.condition}`, words.price(words.conditions[row.condition])],
        [`fails ${row.condition}`, words.fails(words.conditions[row.condition])],
      ]),
    ),
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const bad = Object.keys(labels).find((field) => !Number.isFinite(number(field)));
    if (bad) return setProblem(words.badNumber(labels[bad] ?? bad));
    setProblem("");
    onReckon({
      ...given,
      ...Object.fromEntries(
        FIELDS.map((field) => [field, SHARES.has(field) ? number(field) / 100 : number(field)]),
      ),
      offers: given.offers.map((row) => ({
        ...row,
        price: number(`price ${row.condition}`),
        fails: number(`fails ${row.condition}`) / 100,
      })),
    });
  };
  return (
    <form className="stack" aria-label={words.assume} onSubmit={submit}>
      <div className="worth-fields">
        {Object.entries(labels).map(([field, label]) => (
          <NumberField
            key={field}
            label={label}
            value={typed[field] ?? ""}
            onChange={(said) => setTyped({ ...typed, [field]: said })}
          />
        ))}
      </div>
      <Problem text={problem} />
      <div className="row">
        <Act type="submit">{words.reckon}</Act>
        <Act look="plain" onClick={onUsual}>
          {words.usual}
        </Act>
      </div>
    </form>
  );
}
