import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody, SafeState } from "../../api/client";
import { useIntake } from "../../api/intake";
import { Act } from "../../app/controls/Act";
import { Chip } from "../../app/controls/Chip";
import { Field } from "../../app/controls/Field";
import { hazardWords, power as words } from "../../words/safe";

export type Send = (body: EventBody) => Promise<void>;

/** Covers off and back: one button each, by what is so now. */
export function PanelForm({ view, send }: { view: SafeState; send: Send }) {
  return (
    <div className="chips">
      {view.panels.map((panel) => (
        <Chip
          key={panel.id}
          isOn={panel.is_off}
          onClick={() => void send({ kind: panel.is_off ? "shut" : "opened", panel: panel.id })}
        >
          {panel.is_off ? words.shut(panel.words) : words.off(panel.words)}
        </Chip>
      ))}
    </div>
  );
}

export function TripForm({ jobId, send }: { jobId: string; send: Send }) {
  const { data } = useIntake(jobId);
  const [device, setDevice] = useState("unknown");
  const [moment, setMoment] = useState("unknown");
  const [machine, setMachine] = useState("in");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send({ kind: "tripped", device, moment, machine } as EventBody);
  };
  return (
    <form className="stack" onSubmit={submit}>
      <NativeSelect
        label={words.device}
        value={device}
        data={(data?.devices ?? []).map((row) => ({ value: row.id, label: row.words }))}
        onChange={(change) => setDevice(change.currentTarget.value)}
      />
      <NativeSelect
        label={words.moment}
        value={moment}
        data={(data?.moments ?? []).map((row) => ({ value: row.id, label: row.words }))}
        onChange={(change) => setMoment(change.currentTarget.value)}
      />
      <NativeSelect
        label={words.machine}
        value={machine}
        data={Object.entries(words.machines).map(([value, label]) => ({ value, label }))}
        onChange={(change) => setMachine(change.currentTarget.value)}
      />
      <Act type="submit">{words.trippedDo}</Act>
    </form>
  );
}

/** A device is closed again with the machine in, which is power, or with it out. */
export function ReclosedForm({ send }: { send: Send }) {
  return (
    <div className="chips">
      {(["out", "in"] as const).map((machine) => (
        <Chip key={machine} onClick={() => void send({ kind: "reclosed", machine })}>
          {words.reclosedWith[machine]}
        </Chip>
      ))}
    </div>
  );
}

export function HazardForm({ send }: { send: Send }) {
  const [hazard, setHazard] = useState<keyof typeof hazardWords>("shock");
  const [said, setSaid] = useState("");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send({ kind: "hazard_found", hazard, words: said });
  };
  return (
    <form className="stack" onSubmit={submit}>
      <NativeSelect
        label={words.hazardWhat}
        value={hazard}
        data={Object.entries(hazardWords).map(([value, label]) => ({ value, label }))}
        onChange={(change) => setHazard(change.currentTarget.value as keyof typeof hazardWords)}
      />
      <Field label={words.hazardWords} value={said} maxLength={300} onChange={(typed) => setSaid(typed)} />
      <Act type="submit">{words.hazardDo}</Act>
    </form>
  );
}

type SaidProps = { label: string; act: string; isOptional?: boolean; send: (said: string) => Promise<void> };

/** One sentence, and the button that sends it. */
export function SaidForm({ label, act, isOptional = false, send }: SaidProps) {
  const [said, setSaid] = useState("");
  const submit = (form: FormEvent) => {
    form.preventDefault();
    void send(said);
  };
  return (
    <form className="stack" onSubmit={submit}>
      <Field label={label} value={said} maxLength={300} onChange={(typed) => setSaid(typed)} />
      <Act type="submit" disabled={!isOptional && !said.trim()}>
        {act}
      </Act>
    </form>
  );
}
