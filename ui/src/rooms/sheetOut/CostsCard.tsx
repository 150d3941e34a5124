import { type FormEvent, useState } from "react";
import { useEvent } from "../../api/events";
import type { Costs, SheetOutView } from "../../api/sheetOut";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field, NumberField } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { figure } from "../../app/figure";
import { useForm } from "../../app/useForm";
import { sheetOut as words } from "../../words/sheetOut";

type Draft = { minutes: string; hour: string; callOut: string; lines: { words: string; amount: string }[] };

/** What is charged, line by line; what is typed stays until it is noted. */
export function CostsCard({ view }: { view: SheetOutView }) {
  const record = useEvent(view.job.id);
  const [draft, setDraft, forget] = useForm<Draft>(`ohmcensus.costs.${view.job.id}`, draftOf(view.costs));
  const [problem, setProblem] = useState("");
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const setLine = (at: number, part: Partial<Draft["lines"][number]>) =>
    set({ lines: draft.lines.map((line, place) => (place === at ? { ...line, ...part } : line)) });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const costs = costsOf(draft, view.costs);
    if (typeof costs === "string") return setProblem(costs);
    setProblem("");
    try {
      await record.mutateAsync(costs);
      forget();
    } catch {
      // said below
    }
  };
  if (view.is_signed)
    return view.is_costed ? (
      <Card aria-label={words.costs}>
        <h2>{words.costs}</h2>
        <Total total={view.total} tax={view.costs} />
      </Card>
    ) : null;
  return (
    <Card as="form" isStack aria-label={words.costs} onSubmit={(event) => void submit(event)}>
      <h2>{words.costs}</h2>
      {!view.is_costed && <p className="quiet">{words.proposed}</p>}
      <div className="costs-rates">
        <Amount label={words.minutes} value={draft.minutes} onType={(minutes) => set({ minutes })} />
        <Amount label={words.hour} value={draft.hour} onType={(hour) => set({ hour })} />
        <Amount label={words.callOut} value={draft.callOut} onType={(callOut) => set({ callOut })} />
      </div>
      {draft.lines.map((line, at) => (
        <div key={at} className="costs-line">
          <Field
            label={words.line(at + 1)}
            value={line.words}
            onChange={(typed) => setLine(at, { words: typed })}
          />
          <Amount
            label={words.amount(at + 1)}
            value={line.amount}
            onType={(amount) => setLine(at, { amount })}
          />
        </div>
      ))}
      {JSON.stringify(draft) === JSON.stringify(draftOf(view.costs)) ? (
        <Total total={view.total} tax={view.costs} />
      ) : (
        <p className="quiet">{words.totalLater}</p>
      )}
      <EventProblem event={record} text={problem} />
      <div className="row wrap">
        <Act look="plain" onClick={() => set({ lines: [...draft.lines, { words: "", amount: "" }] })}>
          {words.more}
        </Act>
        <Act type="submit" disabled={record.isPending}>
          {view.is_costed ? words.noteAgain : words.note}
        </Act>
      </div>
    </Card>
  );
}

function Total({ total, tax }: { total: string; tax: Costs }) {
  return (
    <p className="costs-total">
      <span>
        {words.total}
        {tax.tax_percent ? words.withTax(tax.tax_name || words.tax, tax.tax_percent) : ""}
      </span>{" "}
      <b className="mono">{total}</b>
    </p>
  );
}

type AmountProps = { label: string; value: string; onType: (typed: string) => void };

function Amount({ label, value, onType }: AmountProps) {
  return <NumberField label={label} value={value} onChange={(typed) => onType(typed)} />;
}

function draftOf(costs: Costs): Draft {
  return {
    minutes: String(costs.minutes),
    hour: costs.hour.toFixed(2),
    callOut: costs.call_out.toFixed(2),
    lines: (costs.lines ?? []).map((line) => ({ words: line.words, amount: line.amount.toFixed(2) })),
  };
}

/** The costs as they are sent, or what is wrong in one sentence. */
function costsOf(draft: Draft, of: Costs): (Costs & { kind: "costs_noted" }) | string {
  const lines = draft.lines.filter((line) => line.words.trim() || line.amount.trim());
  const fields: [string, string][] = [
    [words.minutes, draft.minutes],
    [words.hour, draft.hour],
    [words.callOut, draft.callOut],
    ...lines.map((line, at): [string, string] => [words.amount(at + 1), line.amount]),
  ];
  const odd = fields.find(([, typed]) => Number.isNaN(amountOf(typed)));
  if (odd) return words.badAmount(odd[0]);
  const nameless = lines.findIndex((line) => line.words.trim().length < 3);
  if (nameless >= 0) return words.noWords(words.line(nameless + 1));
  return {
    ...of,
    kind: "costs_noted",
    minutes: amountOf(draft.minutes),
    hour: amountOf(draft.hour),
    call_out: amountOf(draft.callOut),
    lines: lines.map((line) => ({ words: line.words, amount: amountOf(line.amount) })),
  };
}

function amountOf(typed: string): number {
  return /^\d{1,6}([.,]\d{1,2})?$/.test(typed.trim()) ? figure(typed) : Number.NaN;
}
