import { TextInput } from "@mantine/core";
import type { ProveView } from "../../api/proof";
import { useEvent } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { useKeptState } from "../../app/useKeptState";
import { prove as words } from "../../words/prove";

/** What blocks signing off, and the two ways to end a job. */
export function SignOff({ view }: { view: ProveView }) {
  const record = useEvent(view.job.id);
  const [why, setWhy] = useKeptState(`ohmcensus.sign.${view.job.id}`, "");
  const end = (isUnsafe: boolean) => record.mutate({ kind: "ended", why, is_labelled_unsafe: isUnsafe });
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
          <button
            type="button"
            className="act"
            disabled={record.isPending || view.blocking.length > 0}
            onClick={() => end(false)}
          >
            {view.is_asked ? words.end : words.endPlain}
          </button>
          <button
            type="button"
            className="plain bordered"
            disabled={record.isPending}
            onClick={() => end(true)}
          >
            {words.unsafe}
          </button>
          <p className="quiet">{words.unsafeHint}</p>
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
