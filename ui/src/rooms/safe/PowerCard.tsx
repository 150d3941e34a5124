import { NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody, SafeState } from "../../api/client";
import { useEvent, useIntake } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { hazardWords, power as words } from "../../words/safe";
import { LiveDialog } from "./LiveDialog";

type Form = "panel" | "trip" | "hazard" | "bypass" | null;

/** What changes the state of voltage: plugging in, live mode, a panel off, a trip, a danger. */
export function PowerCard({ view }: { view: SafeState }) {
  const { job } = view;
  const event = useEvent(job.id);
  const [form, setForm] = useState<Form>(null);
  const [isLiveOpen, setIsLiveOpen] = useState(false);
  const send = async (body: EventBody) => {
    try {
      await event.mutateAsync(body);
      setForm(null);
    } catch {
      // said below
    }
  };
  const toggle = (wanted: Form) => setForm(form === wanted ? null : wanted);
  const hasBypass = job.hazards.some((hazard) => hazard.hazard === "bypass");
  return (
    <section className="card leaf stack" aria-label={words.title}>
      <h2>{words.title}</h2>
      <div className="chips">
        <button type="button" className="chip" onClick={() => void send({ kind: "plugged_in" })}>
          {words.plugIn}
        </button>
        <button type="button" className="chip danger-chip" onClick={() => setIsLiveOpen(true)}>
          {job.safety === "live" ? words.leaveLive : words.live}
        </button>
        <button
          type="button"
          className="chip"
          aria-expanded={form === "panel"}
          onClick={() => toggle("panel")}
        >
          {words.panel}
        </button>
        <button type="button" className="chip" aria-expanded={form === "trip"} onClick={() => toggle("trip")}>
          {words.tripped}
        </button>
        <button type="button" className="chip" onClick={() => void send({ kind: "reclosed" })}>
          {words.reclose}
        </button>
        <button
          type="button"
          className="chip"
          aria-expanded={form === "hazard"}
          onClick={() => toggle("hazard")}
        >
          {words.hazard}
        </button>
        {hasBypass && (
          <button
            type="button"
            className="chip"
            aria-expanded={form === "bypass"}
            onClick={() => toggle("bypass")}
          >
            {words.bypassOut}
          </button>
        )}
      </div>
      <p className="quiet" style={{ margin: 0 }}>
        {words.plugInHelp}
      </p>
      <Problem error={event.error} />
      {form === "panel" && <PanelForm view={view} send={send} />}
      {form === "trip" && <TripForm jobId={job.id} send={send} />}
      {form === "hazard" && <HazardForm send={send} />}
      {form === "bypass" && <BypassForm send={send} />}
      <LiveDialog job={job} opened={isLiveOpen} onClose={() => setIsLiveOpen(false)} />
    </section>
  );
}

type Send = (body: EventBody) => Promise<void>;

function PanelForm({ view, send }: { view: SafeState; send: Send }) {
  return (
    <div className="chips">
      {view.panels.map((panel) => (
        <button
          type="button"
          key={panel.id}
          className="chip"
          onClick={() => void send({ kind: "opened", panel: panel.id })}
        >
          {panel.words}
        </button>
      ))}
    </div>
  );
}

function TripForm({ jobId, send }: { jobId: string; send: Send }) {
  const { data } = useIntake(jobId);
  const [device, setDevice] = useState("unknown");
  const [moment, setMoment] = useState("unknown");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send({ kind: "tripped", device, moment } as EventBody);
  };
  return (
    <form className="stack" onSubmit={submit}>
      <NativeSelect
        size="md"
        label={words.device}
        value={device}
        data={(data?.devices ?? []).map((row) => ({ value: row.id, label: row.words }))}
        onChange={(change) => setDevice(change.currentTarget.value)}
      />
      <NativeSelect
        size="md"
        label={words.moment}
        value={moment}
        data={(data?.moments ?? []).map((row) => ({ value: row.id, label: row.words }))}
        onChange={(change) => setMoment(change.currentTarget.value)}
      />
      <button type="submit" className="act">
        {words.trippedDo}
      </button>
    </form>
  );
}

function HazardForm({ send }: { send: Send }) {
  const [hazard, setHazard] = useState<keyof typeof hazardWords>("shock");
  const [said, setSaid] = useState("");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send({ kind: "hazard_found", hazard, words: said });
  };
  return (
    <form className="stack" onSubmit={submit}>
      <NativeSelect
        size="md"
        label={words.hazardWhat}
        value={hazard}
        data={Object.entries(hazardWords).map(([value, label]) => ({ value, label }))}
        onChange={(change) => setHazard(change.currentTarget.value as keyof typeof hazardWords)}
      />
      <TextInput
        size="md"
        label={words.hazardWords}
        value={said}
        maxLength={300}
        onChange={(change) => setSaid(change.currentTarget.value)}
      />
      <button type="submit" className="act">
        {words.hazardDo}
      </button>
    </form>
  );
}

function BypassForm({ send }: { send: Send }) {
  const [said, setSaid] = useState("");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send({ kind: "bypass_removed", words: said });
  };
  return (
    <form className="stack" onSubmit={submit}>
      <TextInput
        size="md"
        label={words.bypassHow}
        value={said}
        maxLength={300}
        onChange={(change) => setSaid(change.currentTarget.value)}
      />
      <button type="submit" className="act" disabled={said.trim().length < 3}>
        {words.bypassOut}
      </button>
    </form>
  );
}
