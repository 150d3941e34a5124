import { Checkbox, NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { Job, Schemas } from "../../api/client";
import { useEvent } from "../../api/events";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { endings, look as words } from "../../words/intake";

type LeftAs = Schemas["LeftAs"];

/** Ending the job where it stands, with a sentence that can be changed. */
export function EndHere({ jobId, why, label = words.end }: { jobId: string; why: string; label?: string }) {
  const [text, setText] = useState<string | null>(null);
  const [isUnsafe, setIsUnsafe] = useState(false);
  const [leftAs, setLeftAs] = useState<LeftAs>("unplugged");
  const [isReported, setIsReported] = useState(false);
  const event = useEvent(jobId);
  if (text === null) {
    return (
      <Act look="plain" className="end-here" onClick={() => setText(why)}>
        {label}
      </Act>
    );
  }
  return (
    <div className="stack end-form">
      <Field
        label={words.endWhy}
        value={text}
        maxLength={300}
        error={event.error?.message}
        onChange={(typed) => setText(typed)}
      />
      <Checkbox
        label={words.unsafe}
        checked={isUnsafe}
        onChange={(change) => setIsUnsafe(change.currentTarget.checked)}
      />
      {isUnsafe && (
        <NativeSelect
          label={words.leftAs}
          value={leftAs}
          data={Object.entries(endings).map(([value, label]) => ({ value, label }))}
          onChange={(change) => setLeftAs(change.currentTarget.value as LeftAs)}
        />
      )}
      {!isUnsafe && (
        <Checkbox
          label={words.outletReported}
          checked={isReported}
          onChange={(change) => setIsReported(change.currentTarget.checked)}
        />
      )}
      <div className="row">
        <Act
          disabled={text.trim().length < 3 || event.isPending}
          onClick={() =>
            event.mutate({
              kind: "ended",
              why: text,
              is_labelled_unsafe: isUnsafe,
              left_as: leftAs,
              outlet_reported: !isUnsafe && isReported,
            })
          }
        >
          {words.endDo}
        </Act>
        <Act look="bare" onClick={() => setText(null)}>
          {words.cancel}
        </Act>
      </div>
    </div>
  );
}

/** At the foot of the intake: end the job, or open it again. */
export function EndJob({ job }: { job: Job }) {
  const event = useEvent(job.id);
  if (job.ended === null) return <EndHere jobId={job.id} why="" />;
  return (
    <Card>
      <p>
        {job.ended}
        <EventProblem event={event} />
      </p>
      <Act look="plain" onClick={() => event.mutate({ kind: "reopened" })}>
        {words.reopen}
      </Act>
    </Card>
  );
}
