import { NativeSelect } from "@mantine/core";
import { IconAlertTriangleFilled } from "@tabler/icons-react";
import { useState } from "react";
import type { EventBody, SafeState } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { ReadingField } from "../../app/ReadingField";
import { power, safe, danger as words } from "../../words/safe";
import { SaidForm } from "./powerForms";

type Danger = SafeState["hazards"][number];

/** The dangers that stand: what was found, what each forbids, and the one thing that lifts it. */
export function Dangers({ view }: { view: SafeState }) {
  const typed = new Set(view.hazards.map((row) => row.typed.trim()));
  const others = view.missing.filter((row) => !typed.has(row.typed.trim()));
  return (
    <Card className="hazards" aria-label={safe.hazards}>
      <h2>
        <IconAlertTriangleFilled size={20} aria-hidden /> {safe.hazards}
      </h2>
      <ul>
        {view.hazards.map((row) => (
          <DangerRow key={row.hazard} view={view} row={row} />
        ))}
      </ul>
      {others.length > 0 && (
        <>
          <h3>{safe.forPower}</h3>
          <ul>
            {others.map((proof) => (
              <li key={proof.key}>
                {proof.title}: {safe.atMost} {proof.should}
                <ReadingField jobId={view.job.id} typed={proof.typed} label={proof.title} />
              </li>
            ))}
          </ul>
        </>
      )}
    </Card>
  );
}

/** A smell or water also wants the place; a bypass wants it out; what was only told can have been an error. */
function DangerRow({ view, row }: { view: SafeState; row: Danger }) {
  const event = useEvent(view.job.id);
  const [form, setForm] = useState<"place" | "bypass" | "error" | null>(null);
  const send = async (body: EventBody) => {
    try {
      await event.mutateAsync(body);
      setForm(null);
    } catch {
      // said below
    }
  };
  const opener = (wanted: "place" | "bypass" | "error", label: string) => (
    <Act
      look="plain"
      aria-expanded={form === wanted}
      onClick={() => setForm(form === wanted ? null : wanted)}
    >
      {label}
    </Act>
  );
  const hasPlace = row.hazard === "burnt_smell" || row.hazard === "water_inside";
  return (
    <li>
      <b>{row.words}</b>
      {row.forbids.length > 0 && (
        <span>
          {words.forbids} {row.forbids.join(", ")}.
        </span>
      )}
      <span>
        {words.liftedBy} <b>{row.remedy}</b>
      </span>
      {row.typed && <ReadingField jobId={view.job.id} typed={row.typed} label={row.remedy} />}
      <div className="row">
        {hasPlace && opener("place", words.place)}
        {row.hazard === "bypass" && opener("bypass", power.bypassOut)}
        {row.is_told && opener("error", words.inError)}
      </div>
      <Problem error={event.error} />
      {form === "place" && <PlaceForm view={view} hazard={row.hazard} send={send} />}
      {form === "bypass" && (
        <SaidForm
          label={power.bypassHow}
          act={power.bypassOut}
          least={3}
          send={(said) => send({ kind: "bypass_removed", words: said })}
        />
      )}
      {form === "error" && (
        <SaidForm
          label={words.because}
          act={words.inErrorDo}
          least={10}
          send={(because) => send({ kind: "noted_in_error", danger: row.hazard, because })}
        />
      )}
    </li>
  );
}

type PlaceProps = { view: SafeState; hazard: string; send: (body: EventBody) => Promise<void> };

/** Where it smelt or was wet: a part of the sheet, or words. */
function PlaceForm({ view, hazard, send }: PlaceProps) {
  const [part, setPart] = useState("");
  return (
    <div className="stack">
      <NativeSelect
        label={words.placePart}
        value={part}
        data={[
          { value: "", label: words.noPart },
          ...view.parts.map((row) => ({ value: row.id, label: row.words })),
        ]}
        onChange={(change) => setPart(change.currentTarget.value)}
      />
      <SaidForm
        label={words.placeSeen}
        act={words.placeDo}
        least={3}
        send={(said) => send({ kind: "place_noted", hazard, part, words: said } as EventBody)}
      />
    </div>
  );
}
