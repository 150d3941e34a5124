import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { ProveView } from "../../api/proof";
import { Act } from "../../app/controls/Act";
import { Field, NumberField } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { useForm } from "../../app/useForm";
import { prove as words } from "../../words/prove";
import { Needs } from "./Needs";

/** A current with its method and its tester; what is typed stays until it is stored. */
export function CurrentForm({ view, criterion }: { view: ProveView; criterion: string }) {
  const record = useEvent(view.job.id);
  const [text, setText, forget] = useForm(`ohmcensus.current.${view.job.id}.${criterion}`, "");
  const [kept, setWay] = useForm("ohmcensus.way", "differential");
  const way = view.ways.find((row) => row.id === kept) ?? view.ways[0];
  const [serial, setSerial] = useState(view.serial);
  const [calibrated, setCalibrated] = useState(view.calibrated);
  const send = (body: EventBody) => {
    record.mutate(body, { onSuccess: () => forget() });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    send({ kind: "proof_made", criterion, text, way: way?.id, serial, calibrated } as EventBody);
  };
  return (
    <form className="criterion-form" onSubmit={submit}>
      {way && !way.stands && <Needs jobId={view.job.id} of={way} />}
      <NumberField
        label={words.reads}
        placeholder={words.placeholder}
        value={text}
        onChange={(typed) => setText(typed)}
      />
      <NativeSelect
        label={words.way}
        value={way?.id}
        data={view.ways.map((row) => ({ value: row.id, label: row.words }))}
        onChange={(event) => setWay(event.currentTarget.value)}
      />
      <Field label={words.serial} value={serial} onChange={(typed) => setSerial(typed)} />
      <Field
        type="date"
        label={words.calibrated}
        value={calibrated}
        onChange={(typed) => setCalibrated(typed)}
      />
      <Act type="submit" disabled={record.isPending}>
        {words.enter}
      </Act>
      <EventProblem event={record} />
    </form>
  );
}
