import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { RunForm } from "../../app/RunForm";
import { useForm } from "../../app/useForm";
import { replace, repair as words } from "../../words/repair";

const EMPTY = { fitted: "", words: "" };
type Changed = Extract<EventBody, { kind?: "changed" }>;

/** One change, or one run after it; what was typed stays until it is stored. */
export function ChangeForm({ view, sawFail }: { view: RepairView; sawFail: boolean | null }) {
  const record = useEvent(view.job.id);
  const [part, setPart] = useState(view.plan.part);
  const [intervention, setIntervention] = useState("");
  const [typed, setTyped, forget] = useForm(`ohmcensus.change.${view.job.id}`, EMPTY);
  const [problem, setProblem] = useState("");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const body = { kind: "changed", part, intervention, ...typed, saw_fail: sawFail ?? false } as Changed;
    if (!intervention) return setProblem(replace.askDone);
    if (intervention === "mended" && !typed.words.trim()) return setProblem(replace.askHow);
    if (view.asks_saw_fail && sawFail === null) return setProblem(replace.askFirst);
    setProblem("");
    try {
      await record.mutateAsync(body);
      forget();
    } catch {
      // said below
    }
  };
  return (
    <>
      <Card as="form" isStack id="change" aria-label={words.change} onSubmit={(event) => void submit(event)}>
        <h2>{words.change}</h2>
        <NativeSelect
          label={words.part}
          value={part}
          data={options(view.parts)}
          onChange={(event) => setPart(event.currentTarget.value)}
        />
        <NativeSelect
          label={words.done}
          value={intervention}
          data={[{ value: "", label: words.choose }, ...options(view.interventions)]}
          onChange={(event) => setIntervention(event.currentTarget.value)}
        />
        <Field
          label={words.fitted}
          description={words.fittedHelp}
          value={typed.fitted}
          maxLength={300}
          onChange={(said) => setTyped({ ...typed, fitted: said })}
        />
        <Field
          label={words.note}
          value={typed.words}
          maxLength={300}
          onChange={(said) => setTyped({ ...typed, words: said })}
        />
        <EventProblem event={record} text={sawFail !== null && problem === replace.askFirst ? "" : problem} />
        <Act type="submit" disabled={record.isPending}>
          {words.keep}
        </Act>
      </Card>
      <Card aria-label={words.run}>
        <h2>{words.run}</h2>
        <p className="quiet">{words.runHelp}</p>
        <RunForm jobId={view.job.id} outcomes={view.outcomes} heats={view.heats} />
      </Card>
    </>
  );
}

const options = (rows: { id: string; words: string }[]) =>
  rows.map((row) => ({ value: row.id, label: row.words }));
