import { NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody } from "../../api/client";
import type { ProveView } from "../../api/proof";
import { useEvent } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { WhenAsked } from "../../app/WhenAsked";
import { prove as words } from "../../words/prove";

/** A current with its method and its tester; what is typed stays until it is stored. */
export function CurrentForm({ view, criterion }: { view: ProveView; criterion: string }) {
  const record = useEvent(view.job.id);
  const [text, setText, forget] = useForm(`ohmcensus.current.${view.job.id}.${criterion}`, "");
  const [way, setWay] = useState("differential");
  const [serial, setSerial] = useState(view.serial);
  const [calibrated, setCalibrated] = useState(view.calibrated);
  const [asked, setAsked] = useState<EventBody | null>(null);
  const send = (body: EventBody) => {
    setAsked(body);
    record.mutate(body, { onSuccess: () => forget() });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    send({ kind: "proof_made", criterion, text, way, serial, calibrated } as EventBody);
  };
  return (
    <form className="criterion-form" onSubmit={submit}>
      <TextInput
        size="md"
        label={words.reads}
        placeholder={words.placeholder}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <NativeSelect
        size="md"
        label={words.way}
        value={way}
        data={view.ways.map((row) => ({ value: row.id, label: row.words }))}
        onChange={(event) => setWay(event.currentTarget.value)}
      />
      <TextInput
        size="md"
        label={words.serial}
        value={serial}
        onChange={(event) => setSerial(event.currentTarget.value)}
      />
      <TextInput
        size="md"
        type="date"
        label={words.calibrated}
        value={calibrated}
        onChange={(event) => setCalibrated(event.currentTarget.value)}
      />
      <button type="submit" className="act" disabled={record.isPending}>
        {words.enter}
      </button>
      <Problem error={record.error} />
      <WhenAsked error={record.error} asked={asked} send={send} />
    </form>
  );
}
