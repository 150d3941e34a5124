import { Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody } from "../../api/client";
import type { RepairView } from "../../api/repair";
import { useEvent } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { RunForm } from "../../app/RunForm";
import { useForm } from "../../app/useForm";
import { repair as words } from "../../words/repair";

const EMPTY = { fitted: "", words: "", saw_fail: false };
type Changed = Extract<EventBody, { kind?: "changed" }>;

/** One change, or one run after it; what was typed stays until it is stored. */
export function ChangeForm({ view }: { view: RepairView }) {
  const record = useEvent(view.job.id);
  const [part, setPart] = useState(view.leader);
  const [intervention, setIntervention] = useState(view.interventions[0]?.id ?? "");
  const [typed, setTyped, forget] = useForm(`ohmcensus.change.${view.job.id}`, EMPTY);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const body = { kind: "changed", part, intervention, ...typed } as Changed;
    try {
      await record.mutateAsync(body);
      forget();
    } catch {
      // said below
    }
  };
  return (
    <>
      <form className="card leaf stack" aria-label={words.change} onSubmit={(event) => void submit(event)}>
        <h2>{words.change}</h2>
        <NativeSelect
          size="md"
          label={words.part}
          value={part}
          data={options(view.parts)}
          onChange={(event) => setPart(event.currentTarget.value)}
        />
        <NativeSelect
          size="md"
          label={words.done}
          value={intervention}
          data={options(view.interventions)}
          onChange={(event) => setIntervention(event.currentTarget.value)}
        />
        <TextInput
          size="md"
          label={words.fitted}
          description={words.fittedHelp}
          value={typed.fitted}
          maxLength={300}
          onChange={(event) => setTyped({ ...typed, fitted: event.currentTarget.value })}
        />
        <TextInput
          size="md"
          label={words.note}
          value={typed.words}
          maxLength={300}
          onChange={(event) => setTyped({ ...typed, words: event.currentTarget.value })}
        />
        {view.asks_saw_fail && (
          <Checkbox
            size="md"
            label={words.sawFail}
            description={words.sawFailHelp}
            checked={typed.saw_fail}
            onChange={(event) => setTyped({ ...typed, saw_fail: event.currentTarget.checked })}
          />
        )}
        <Problem error={record.error} />
        <button type="submit" className="act" disabled={record.isPending}>
          {words.keep}
        </button>
      </form>
      <section className="card leaf" aria-label={words.run}>
        <h2>{words.run}</h2>
        <p className="quiet">{words.runHelp}</p>
        <RunForm jobId={view.job.id} outcomes={view.outcomes} heats={view.heats} />
      </section>
    </>
  );
}

const options = (rows: { id: string; words: string }[]) =>
  rows.map((row) => ({ value: row.id, label: row.words }));
