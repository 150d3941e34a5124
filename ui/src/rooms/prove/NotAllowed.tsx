import type { FormEvent } from "react";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { useForm } from "../../app/useForm";
import { prove as words } from "../../words/prove";

/** Why insulation may not be tested here. */
export function NotAllowed({ jobId }: { jobId: string }) {
  const record = useEvent(jobId);
  const [why, setWhy, forget] = useForm(`ohmcensus.barred.${jobId}`, "");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    record.mutate({ kind: "insulation_not_allowed", words: why }, { onSuccess: () => forget() });
  };
  return (
    <details>
      <summary>{words.barred}</summary>
      <form className="criterion-form" onSubmit={submit}>
        <Field label={words.barredWhy} value={why} maxLength={300} onChange={(typed) => setWhy(typed)} />
        <Act look="plain" type="submit" disabled={record.isPending}>
          {words.barredEnter}
        </Act>
        <EventProblem event={record} />
      </form>
    </details>
  );
}
