import { Modal, NativeSelect, Select } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { MeterFunction, Trace } from "../../api/client";
import { useLogReading } from "../../api/trace";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { soundReading } from "../../app/sound";
import { functionWords, trace as words } from "../../words/trace";

const FUNCTIONS: MeterFunction[] = [
  "ohm",
  "continuity",
  "insulation",
  "volts_ac",
  "volts_dc",
  "capacitance",
  "ampere",
  "hertz",
];

type Props = { jobId: string; trace: Trace; opened: boolean; onClose: () => void };

/** A reading between any two points, for which no test exists. */
export function TwoPointsDialog({ jobId, trace, opened, onClose }: Props) {
  const [first, setFirst] = useState<string | null>(null);
  const [second, setSecond] = useState<string | null>(null);
  const [did, setDid] = useState<MeterFunction>("ohm");
  const [reading, setReading] = useState("");
  const log = useLogReading(jobId);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!first || !second) return;
    soundReading(await log.mutateAsync({ text: `between ${first} ${second} ${reading}`, function: did }));
    setReading("");
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title={<b>{words.twoPoints}</b>} centered size={620}>
      <form className="stack" onSubmit={(event) => submit(event).catch(() => undefined)}>
        <p className="quiet" style={{ margin: 0 }}>
          {words.twoPointsHelp}
        </p>
        <Select
          label={words.firstPoint}
          data={trace.points}
          value={first}
          onChange={setFirst}
          searchable
          required
        />
        <Select
          label={words.secondPoint}
          data={trace.points}
          value={second}
          onChange={setSecond}
          searchable
          required
        />
        <NativeSelect
          label={words.meterDid}
          data={FUNCTIONS.map((value) => ({ value, label: functionWords[value] }))}
          value={did}
          onChange={(event) => setDid(event.currentTarget.value as MeterFunction)}
        />
        <Field
          label={words.reading}
          value={reading}
          onChange={(typed) => setReading(typed)}
          error={log.error?.message}
          required
        />
        <div className="row">
          <Act type="submit" disabled={!first || !second || log.isPending}>
            {words.log}
          </Act>
          <Act look="bare" onClick={onClose}>
            {words.cancel}
          </Act>
        </div>
      </form>
    </Modal>
  );
}
