import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useEvent } from "../../api/events";
import type { HouseView } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Field, NumberField } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { figure } from "../../app/figure";
import { useForm } from "../../app/useForm";
import { trip as words } from "../../words/trip";

type Noted = Required<HouseView["noted"]>;
type Row = { id: string; name: string; leaks: string };

const RATED = ["10", "30", "100", "300"];
const WAVES = ["AC", "A", "F", "B"];
const CURVES = ["B", "C", "D", "gG", "plug", ""];

/** Supply, device and everything else on it; what is typed stays until it is kept. */
export function HouseForm({ house, jobId, onKept }: { house: HouseView; jobId: string; onKept: () => void }) {
  const [noted, setNoted, forgetNoted] = useForm(`ohmcensus.house.${jobId}`, house.noted as Noted);
  const [amps, setAmps, forgetAmps] = useForm(`ohmcensus.house.amps.${jobId}`, String(house.noted.rated_a));
  const [rows, setRows, forgetRows] = useForm<Row[]>(
    `ohmcensus.house.rows.${jobId}`,
    (house.noted.appliances ?? []).map((row) => ({
      id: crypto.randomUUID(),
      name: row.name,
      leaks: String(row.leakage_ma),
    })),
  );
  const [problem, setProblem] = useState("");
  const record = useEvent(jobId);
  const set = (part: Partial<Noted>) => setNoted({ ...noted, ...part });
  const change = (id: string, part: Partial<Row>) =>
    setRows(rows.map((row) => (row.id === id ? { ...row, ...part } : row)));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const appliances = rows.map((row) => ({
      name: row.name,
      leakage_ma: figure(row.leaks),
    }));
    if (appliances.some((row) => !Number.isFinite(row.leakage_ma))) return setProblem(words.badNumber);
    setProblem("");
    try {
      await record.mutateAsync({ ...noted, kind: "circuit_noted", rated_a: Number(amps), appliances });
      forgetNoted();
      forgetRows();
      forgetAmps();
      onKept();
    } catch {
      // said below
    }
  };
  return (
    <form className="stack" onSubmit={(event) => void submit(event)} aria-label={words.edit}>
      <div className="house-fields">
        <NativeSelect
          label={words.supply}
          value={noted.supply}
          data={house.supplies.map((row) => ({ value: row.id, label: row.words }))}
          onChange={(event) => set({ supply: event.currentTarget.value as Noted["supply"] })}
        />
        <NativeSelect
          label={words.plug}
          value={noted.plug ?? ""}
          data={["", "reversible", "polarised", "fixed"].map((value) => ({
            value,
            label: words.plugs[value as keyof typeof words.plugs],
          }))}
          onChange={(event) => set({ plug: (event.currentTarget.value || null) as Noted["plug"] })}
        />
        <NativeSelect
          label={words.device}
          value={noted.device}
          data={house.devices.map((row) => ({ value: row.id, label: row.words }))}
          onChange={(event) => set({ device: event.currentTarget.value as Noted["device"] })}
        />
        <NativeSelect
          label={words.rated}
          value={String(noted.rated_ma)}
          data={RATED}
          onChange={(event) => set({ rated_ma: Number(event.currentTarget.value) as Noted["rated_ma"] })}
        />
        <NativeSelect
          label={words.wave}
          value={noted.wave}
          data={WAVES}
          onChange={(event) => set({ wave: event.currentTarget.value as Noted["wave"] })}
        />
        <NativeSelect
          label={words.curve}
          value={noted.curve}
          data={CURVES.map((row) => ({ value: row, label: words.curves[row] ?? row }))}
          onChange={(event) => set({ curve: event.currentTarget.value as Noted["curve"] })}
        />
        <NumberField label={words.amps} value={amps} onChange={(typed) => setAmps(typed)} />
      </div>
      <h3>{words.others}</h3>
      {rows.map((row) => (
        <div className="house-row" key={row.id}>
          <Field
            label={words.name}
            value={row.name}
            maxLength={80}
            onChange={(typed) => change(row.id, { name: typed })}
          />
          <NumberField
            label={words.leaks}
            value={row.leaks}
            onChange={(typed) => change(row.id, { leaks: typed })}
          />
          <Act look="bare" onClick={() => setRows(rows.filter((other) => other.id !== row.id))}>
            {words.remove}
          </Act>
        </div>
      ))}
      <Act look="plain" onClick={() => setRows([...rows, { id: crypto.randomUUID(), name: "", leaks: "" }])}>
        {words.add}
      </Act>
      <EventProblem event={record} text={problem} />
      <Act type="submit" disabled={record.isPending}>
        {words.keep}
      </Act>
    </form>
  );
}
