import { NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { ApiError, type Meter, type MeterFunction } from "../../api/client";
import { useKeepMeter } from "../../api/hooks";
import { NumberField } from "../../app/NumberField";
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
    <form className="card stack" onSubmit={submit} noValidate>
      <h2>{words.form}</h2>
      <TextInput
        size="md"
        label={words.name}
        value={draft.title}
        maxLength={80}
        autoFocus
        onChange={(e) => set({ title: e.currentTarget.value })}
      />
      <div className="row">
        <NumberField
          label={words.impedance}
          value={draft.impedance}
          onChange={(e) => set({ impedance: e.currentTarget.value })}
        />
        <NumberField
          label={words.leads}
          value={draft.leads}
          onChange={(e) => set({ leads: e.currentTarget.value })}
        />
        <NativeSelect
          size="md"
          label={words.overRange}
          data={OVER_RANGE}
          value={draft.overRange}
          onChange={(e) => set({ overRange: e.currentTarget.value })}
        />
      </div>
      <div className="row">
        <TextInput
          size="md"
          label={words.serial}
          value={draft.serial}
          maxLength={60}
          onChange={(e) => set({ serial: e.currentTarget.value })}
        />
        <TextInput
          size="md"
          type="date"
          label={words.calibrated}
          value={draft.calibrated}
          onChange={(e) => set({ calibrated: e.currentTarget.value })}
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
              <th />
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
        <button type="submit" className="act" disabled={keep.isPending}>
          {words.keepMeter}
        </button>
        <button type="button" className="plain" onClick={onClose}>
          {words.cancel}
        </button>
      </div>
    </form>
  );
}
