import { NativeSelect } from "@mantine/core";
import { IconAlertTriangleFilled } from "@tabler/icons-react";
import { useState } from "react";
import { Link } from "react-router";
import type { EventBody, SafeState } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { ReadingField } from "../../app/ReadingField";
import { power, safe, danger as words } from "../../words/safe";
import { SaidForm } from "./powerForms";

type Danger = SafeState["hazards"][number];

/** The dangers that stand: what was found, what each forbids, and the one thing that lifts it. */
export function Dangers({ view }: { view: SafeState }) {
  const typed = new Set(view.hazards.map((row) => row.typed.trim()));
  const others = view.missing.filter((row) => !typed.has(row.typed.trim()));
  return (
    <Card id="dangers" className="hazards" aria-label={safe.hazards}>
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
      {row.typed && (
        <ReadingField jobId={view.job.id} typed={row.typed} label={row.remedy} asksDoor={row.asks_door} />
      )}
      <div className="row">
        {row.look && <Look check={row.look} send={send} />}
        {hasPlace && opener("place", words.place)}
        {row.hazard === "bypass" && row.is_told && opener("bypass", power.bypassOut)}
        {!row.typed && row.act.where && !isHere(row) && (
          <Act as={Link} look="plain" to={`/jobs/${view.job.id}/${row.act.where.room}#${row.act.where.at}`}>
            {row.act.label}
          </Act>
        )}
        {row.is_told && opener("error", words.inError)}
      </div>
      <EventProblem event={event} />
      {row.act.id === "try_interlock" && view.opens && <Interlock opens={view.opens} send={send} />}
      {form === "place" && <PlaceForm view={view} hazard={row.hazard} send={send} />}
      {form === "bypass" && (
        <SaidForm
          label={power.bypassHow}
          act={power.bypassOut}
          send={(said) => send({ kind: "bypass_removed", words: said })}
        />
      )}
      {form === "error" && (
        <SaidForm
          label={words.because}
          act={words.inErrorDo}
          send={(because) => send({ kind: "noted_in_error", danger: row.hazard, because })}
        />
      )}
    </li>
  );
}

/** What was seen where a look is asked for. */
function Look({ check, send }: { check: string; send: (body: EventBody) => Promise<void> }) {
  const seen = (outcome: "good" | "bad") => void send({ kind: "checked", check, outcome, words: "" });
  return (
    <>
      <Act look="plain" onClick={() => seen("good")}>
        {words.looksGood}
      </Act>
      <Act look="danger" onClick={() => seen("bad")}>
        {words.looksBad}
      </Act>
    </>
  );
}

/** Whether the one thing to do is done here: a form of its own stands in the row. */
const isHere = (row: Danger) => row.act.where?.room === "safe";

type InterlockProps = { opens: "door" | "lid"; send: (body: EventBody) => Promise<void> };

/** How an interlock is tried, what can hurt there, and what the machine did. */
function Interlock({ opens, send }: InterlockProps) {
  const outcomes =
    opens === "lid" ? (["no_start", "stops", "starts"] as const) : (["no_start", "starts"] as const);
  return (
    <div id="interlock" className="stack">
      <p>{words.tryHow[opens]}</p>
      <p className="danger-words">{words.tryCaution}</p>
      <div className="chips">
        {outcomes.map((outcome) => (
          <Chip
            key={outcome}
            className={outcome === "starts" ? "danger" : undefined}
            onClick={() => void send({ kind: "interlock_tried", open: opens, outcome })}
          >
            {words.tried[outcome]}
          </Chip>
        ))}
      </div>
    </div>
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
        send={(said) => send({ kind: "place_noted", hazard, part, words: said } as EventBody)}
      />
    </div>
  );
}
