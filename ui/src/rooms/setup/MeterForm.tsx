import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { ApiError, type Meter, type MeterFunction } from "../../api/client";
import { useKeepMeter } from "../../api/meters";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field, NumberField } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { setup as words } from "../../words/setup";
import { functionWords } from "../../words/trace";
import { type Draft, draftOf, type Figure, meterOf } from "./meterDraft";

const OVER_RANGE = [
  { value: "ol", label: words.showsOl },
  { value: "one", label: words.showsOne },
  { value: "greater", label: words.showsGreater },
];
const COLUMNS: { figure: Figure; label: string }[] = [
  { figure: "full_scale", label: words.range },
  { figure: "resolution", label: words.resolution },
  { figure: "percent", label: words.percent },
  { figure: "digits", label: words.digits },
];

type Props = { start: Meter; revision: number; onClose: () => void };

/** A meter of one's own, its figures as the leaflet prints them. */
export function MeterForm({ start, revision, onClose }: Props) {
  const [seen, setSeen] = useState(revision);
  const [draft, setDraft] = useState<Draft>(() => draftOf(start));
  const keep = useKeepMeter();
  const set = (changes: Partial<Draft>) => setDraft((before) => ({ ...before, ...changes }));
  const setFigure = (index: number, figure: Figure, typed: string) =>
    set({ ranges: draft.ranges.map((row, i) => (i === index ? { ...row, [figure]: typed } : row)) });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate(
      { ...meterOf(draft), revision: seen },
      {
        onSuccess: onClose,
        onError: (error) => setSeen((error instanceof ApiError && error.problem?.revision) || seen),
      },
    );
  };
  return (
    <Card as="form" isStack onSubmit={submit} noValidate>
      <h2>{words.form}</h2>
      <Field
        label={words.name}
        value={draft.title}
        maxLength={80}
        autoFocus
        onChange={(typed) => set({ title: typed })}
      />
      <div className="row">
        <NumberField
          label={words.impedance}
          value={draft.impedance}
          onChange={(typed) => set({ impedance: typed })}
        />
        <NumberField label={words.leads} value={draft.leads} onChange={(typed) => set({ leads: typed })} />
        <NativeSelect
          label={words.overRange}
          data={OVER_RANGE}
          value={draft.overRange}
          onChange={(e) => set({ overRange: e.currentTarget.value })}
        />
      </div>
      <div className="row">
        <Field
          label={words.serial}
          value={draft.serial}
          maxLength={60}
          onChange={(typed) => set({ serial: typed })}
        />
        <Field
          type="date"
          label={words.calibrated}
          value={draft.calibrated}
          onChange={(typed) => set({ calibrated: typed })}
        />
      </div>
      <label className="row" style={{ minHeight: 44 }}>
        <input
          type="checkbox"
          checked={draft.nulled}
          onChange={(e) => set({ nulled: e.currentTarget.checked })}
        />
        {words.nulled}
      </label>
      <h2>{words.accuracy}</h2>
      <div style={{ overflowX: "auto" }}>
        <table className="ranges">
          <thead>
            <tr>
              <td />
              {COLUMNS.map((column) => (
                <th key={column.figure}>{column.label}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {draft.ranges.map((row, index) => (
              <tr key={row.key}>
                <td>{row.isFirst ? functionWords[row.function as MeterFunction] : ""}</td>
                {COLUMNS.map(({ figure, label }) => (
                  <td key={figure}>
                    <input
                      aria-label={`${functionWords[row.function as MeterFunction]}, ${label}`}
                      value={row[figure]}
                      inputMode="decimal"
                      onChange={(e) => setFigure(index, figure, e.currentTarget.value)}
                    />
                    {(figure === "full_scale" || figure === "resolution") && (
                      <span className="quiet"> {row.unit}</span>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Problem error={keep.error} />
      <div className="row">
        <Act type="submit" disabled={keep.isPending}>
          {words.keepMeter}
        </Act>
        <Act look="bare" onClick={onClose}>
          {words.cancel}
        </Act>
      </div>
    </Card>
  );
}
