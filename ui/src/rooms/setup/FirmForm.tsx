import { Autocomplete, Textarea } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { Settings } from "../../api/client";
import { useChangeSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field, NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
import { Problem } from "../../app/Problem";
import { setup } from "../../words/setup";
import { MarkPick } from "./MarkPick";
import { seenAfter } from "./seenAfter";

const words = setup.firm;
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Whose name stands on what goes out, in which currency, with which tax, and by which clock. */
export function FirmForm({ settings }: { settings: Settings }) {
  const firm = settings.firm;
  const [draft, setDraft] = useState({
    name: firm?.name ?? "",
    address: firm?.address ?? "",
    contact: firm?.contact ?? "",
    currency: firm?.currency ?? "",
    tax_name: firm?.tax_name ?? "",
    tax_percent: String(firm?.tax_percent ?? 0),
    zone: firm?.zone ?? "",
  });
  const [problem, setProblem] = useState("");
  const [seen, setSeen] = useState(settings);
  const keep = useChangeSettings();
  const set = (part: Partial<typeof draft>) => setDraft({ ...draft, ...part });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const percent = figure(draft.tax_percent.trim() || "0");
    setProblem(Number.isFinite(percent) ? "" : setup.notANumber(words.taxPercent));
    if (!Number.isFinite(percent)) return;
    keep.mutate({ seen, wanted: { firm: { ...draft, tax_percent: percent } } }, seenAfter(setSeen));
  };
  return (
    <Card as="form" isStack aria-label={words.title} onSubmit={submit}>
      <h2>{words.title}</h2>
      <p className="quiet">{words.help}</p>
      <Field label={words.name} value={draft.name} maxLength={80} onChange={(name) => set({ name })} />
      <Textarea
        label={words.address}
        value={draft.address}
        maxLength={200}
        autosize
        minRows={2}
        onChange={(event) => set({ address: event.currentTarget.value })}
      />
      <Field
        label={words.contact}
        value={draft.contact}
        maxLength={120}
        onChange={(contact) => set({ contact })}
      />
      <div className="firm-money">
        <Field
          label={words.currency}
          value={draft.currency}
          maxLength={6}
          onChange={(currency) => set({ currency })}
        />
        <Field
          label={words.taxName}
          value={draft.tax_name}
          maxLength={20}
          onChange={(tax_name) => set({ tax_name })}
        />
        <NumberField
          label={words.taxPercent}
          value={draft.tax_percent}
          onChange={(tax_percent) => set({ tax_percent })}
        />
      </div>
      <Autocomplete
        label={words.zone}
        description={words.zoneHelp}
        value={draft.zone}
        maxLength={60}
        limit={8}
        data={Intl.supportedValuesOf("timeZone")}
        onChange={(zone) => set({ zone })}
      />
      <Problem error={keep.error} text={problem} />
      <div className="row wrap">
        <Act type="submit" disabled={keep.isPending}>
          {words.keep}
        </Act>
        {draft.zone !== HERE && (
          <Act look="plain" onClick={() => set({ zone: HERE })}>
            {words.takeZone(HERE)}
          </Act>
        )}
        {keep.isSuccess && <span role="status">{setup.kept}</span>}
      </div>
      <MarkPick mark={settings.mark ?? ""} />
    </Card>
  );
}
