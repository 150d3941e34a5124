import { type FormEvent, useState } from "react";
import type { Settings } from "../../api/client";
import { useChangeSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
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
    <Card as="form" isStack aria-label={words.costsTitle} onSubmit={submit}>
      <h2>{words.costsTitle}</h2>
      {FIELDS.map((field) => (
        <NumberField
          key={field}
          label={words.costs[field]}
          description={field === "live_penalty" ? words.livePenaltyHelp : undefined}
          value={typed[field]}
          onChange={(said) => setTyped({ ...typed, [field]: said })}
        />
      ))}
      <Problem error={keep.error} text={problem} />
      <div className="row">
        <Act type="submit" disabled={keep.isPending}>
          {words.keepCosts}
        </Act>
        {keep.isSuccess && <span role="status">{words.kept}</span>}
      </div>
    </Card>
  );
}
