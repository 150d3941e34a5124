import { type FormEvent, useState } from "react";
import type { Settings } from "../../api/client";
import { useChangeSettings } from "../../api/hooks";
import { figure } from "../../app/figure";
import { NumberField } from "../../app/NumberField";
import { Problem } from "../../app/Problem";
import { setup as words } from "../../words/setup";
import { seenAfter } from "./seenAfter";

type Field = "hour_price" | "call_out_price" | "live_penalty";

const FIELDS: Field[] = ["hour_price", "call_out_price", "live_penalty"];

/** What work and a visit cost, and how much a live test counts against one on a dead machine. */
export function CostsForm({ settings }: { settings: Settings }) {
  const [typed, setTyped] = useState<Record<Field, string>>({
    hour_price: String(settings.hour_price),
    call_out_price: String(settings.call_out_price),
    live_penalty: String(settings.live_penalty),
  });
  const [problem, setProblem] = useState("");
  const [seen, setSeen] = useState(settings);
  const keep = useChangeSettings();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const bad = FIELDS.find((field) => !Number.isFinite(figure(typed[field])));
    setProblem(bad ? words.notANumber(words.costs[bad]) : "");
    if (bad) return;
    const costs = Object.fromEntries(FIELDS.map((field) => [field, figure(typed[field])]));
    keep.mutate({ seen, wanted: costs }, seenAfter(setSeen));
  };
  return (
    <form className="card stack" aria-label={words.costsTitle} onSubmit={submit}>
      <h2>{words.costsTitle}</h2>
      {FIELDS.map((field) => (
        <NumberField
          key={field}
          label={words.costs[field]}
          description={field === "live_penalty" ? words.livePenaltyHelp : undefined}
          value={typed[field]}
          onChange={(event) => setTyped({ ...typed, [field]: event.currentTarget.value })}
        />
      ))}
      <Problem error={keep.error} text={problem} />
      <div className="row">
        <button type="submit" className="act" disabled={keep.isPending}>
          {words.keepCosts}
        </button>
        {keep.isSuccess && <span role="status">{words.kept}</span>}
      </div>
    </form>
  );
}
