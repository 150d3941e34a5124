import { Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { ProveView } from "../../api/proof";
import { useEvent } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { prove as words } from "../../words/prove";

type LeftAs = Schemas["LeftAs"];

/** What blocks signing off, and the two ways to end a job. */
export function SignOff({ view }: { view: ProveView }) {
  const record = useEvent(view.job.id);
  const [why, setWhy] = useForm(`ohmcensus.sign.${view.job.id}`, "");
  const [leftAs, setLeftAs] = useState<LeftAs>("unplugged");
  const [isReported, setIsReported] = useState(false);
  const end = (how: { is_labelled_unsafe?: boolean; not_tested?: string[] }) =>
    record.mutate({ kind: "ended", why, left_as: leftAs, outlet_reported: isReported, ...how });
  const isFree = view.blocking.length === 0 || (isReported && view.has_bad_outlet);
  return (
    <section className="card leaf stack" aria-label={words.signOff}>
      <h2>{words.signOff}</h2>
      {view.blocking.length === 0 ? (
        <p>{view.is_asked ? words.free : words.unchanged}</p>
      ) : (
        <>
          <p>{words.blocked}</p>
          <ul className="blocking">
            {view.blocking.map((row) => (
              <li key={row}>{row}</li>
            ))}
          </ul>
        </>
      )}
      {view.is_over ? (
        <>
          <p>{words.over}</p>
          <a
            className="plain bordered"
            href={`/api/jobs/${view.job.id}/label.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            {words.label}
          </a>
        </>
      ) : (
        <>
          <TextInput
            size="md"
            label={words.why}
            value={why}
            maxLength={300}
            onChange={(event) => setWhy(event.currentTarget.value)}
          />
          <NativeSelect
            size="md"
            label={words.leftAs}
            value={leftAs}
            data={view.left_as.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) => setLeftAs(event.currentTarget.value as LeftAs)}
          />
          {view.has_bad_outlet && (
            <Checkbox
              size="md"
              label={words.outletReported}
              checked={isReported}
              onChange={(event) => setIsReported(event.currentTarget.checked)}
            />
          )}
          <button
            type="button"
            className="act"
            disabled={record.isPending || !isFree}
            onClick={() => end({})}
          >
            {view.is_asked ? words.end : words.endPlain}
          </button>
          <button
            type="button"
            className="plain bordered"
            disabled={record.isPending}
            onClick={() => end({ is_labelled_unsafe: true })}
          >
            {words.unsafe}
          </button>
          <p className="quiet">{words.unsafeHint}</p>
          {!view.is_cut_off && <p className="danger-words">{words.cutFirst}</p>}
          {view.is_asked && view.untested.length > 0 && (
            <details>
              <summary>{words.notTested}</summary>
              <p>
                {words.notTestedHint} {view.untested.map((row) => row.words).join(", ")}.
              </p>
              <button
                type="button"
                className="plain bordered"
                disabled={record.isPending}
                onClick={() => end({ not_tested: view.untested.map((row) => row.id) })}
              >
                {words.notTestedDo}
              </button>
            </details>
          )}
        </>
      )}
      <Problem error={record.error} />
      <a
        className="plain bordered"
        href={`/api/jobs/${view.job.id}/report.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        {words.sheet}
      </a>
      <p className="quiet">{words.cautions}</p>
    </section>
  );
}
