import { Checkbox, NativeSelect } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useEvent } from "../../api/events";
import type { ProveView } from "../../api/proof";
import { useChangeSettings, useSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { prove as words } from "../../words/prove";
import { type SignatureDraft, SignaturePad } from "./SignaturePad";

const NOT_SIGNED: SignatureDraft = { name: "", strokes: [] };

type LeftAs = Schemas["LeftAs"];

/** What blocks signing off, and the two ways to end a job. */
export function SignOff({ view }: { view: ProveView }) {
  const record = useEvent(view.job.id);
  const [typed, setTyped] = useForm<string | null>(`ohmcensus.sign.${view.job.id}`, null);
  const [leftAs, setLeftAs] = useState<LeftAs>("unplugged");
  const [isReported, setIsReported] = useState(false);
  const settings = useSettings().data;
  const keep = useChangeSettings();
  const [name, setName] = useForm("ohmcensus.name", "");
  const [signed, setSigned, forgetSigned] = useForm<SignatureDraft>(
    `ohmcensus.signature.${view.job.id}`,
    NOT_SIGNED,
  );
  const [problem, setProblem] = useState("");
  const isNameless = settings !== undefined && !settings.technician;
  // What is known already is only corrected, not typed.
  const end = async (how: { is_labelled_unsafe?: boolean; not_tested?: string[] }) => {
    const known = (how.is_labelled_unsafe && view.unsafe_because) || view.done;
    const isHalf = (signed.name.trim() === "") !== (signed.strokes.length === 0);
    setProblem(isHalf ? words.signature.half : "");
    if (isHalf) return;
    try {
      if (isNameless && name.trim()) await keep.mutateAsync({ seen: settings, wanted: { technician: name } });
      await record.mutateAsync({
        kind: "ended",
        why: typed ?? known,
        left_as: leftAs,
        outlet_reported: isReported,
        ...(signed.name.trim() ? { signature: signed } : {}),
        ...how,
      });
      forgetSigned();
    } catch {
      // said below
    }
  };
  const isDue = !view.is_over && !view.criteria.some((row) => row.is_next);
  const isFree = view.blocking.length === 0 || (isReported && view.has_bad_outlet);
  return (
    <Card isStack id="unsafe" aria-label={words.signOff} aria-current={isDue ? "step" : undefined}>
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
          <Act as={Link} look="plain" to={`/jobs/${view.job.id}/sheet-out`}>
            {words.toSheetOut}
          </Act>
        </>
      ) : (
        <>
          <Field label={words.why} value={typed ?? view.done} maxLength={300} onChange={setTyped} />
          {isNameless && (
            <Field
              label={words.name}
              description={words.nameHelp}
              value={name}
              maxLength={80}
              onChange={(typed) => setName(typed)}
            />
          )}
          <NativeSelect
            label={words.leftAs}
            value={leftAs}
            data={view.left_as.map((row) => ({ value: row.id, label: row.words }))}
            onChange={(event) => setLeftAs(event.currentTarget.value as LeftAs)}
          />
          {view.has_bad_outlet && (
            <Checkbox
              label={words.outletReported}
              checked={isReported}
              onChange={(event) => setIsReported(event.currentTarget.checked)}
            />
          )}
          <SignaturePad draft={signed} onChange={setSigned} />
          <Act disabled={record.isPending || !isFree} onClick={() => void end({})}>
            {view.is_asked ? words.end : words.endPlain}
          </Act>
          <Act
            look="plain"
            disabled={record.isPending}
            onClick={() => void end({ is_labelled_unsafe: true })}
          >
            {words.unsafe}
          </Act>
          <p className="quiet">
            {words.unsafeHint}{" "}
            {typed === null && view.unsafe_because && words.unsafeSays(view.unsafe_because)}
          </p>
          {!view.is_cut_off && <p className="danger-words">{words.cutFirst}</p>}
          {view.is_asked && view.untested.length > 0 && (
            <details>
              <summary>{words.notTested}</summary>
              <p>
                {words.notTestedHint} {view.untested.map((row) => row.words).join(", ")}.
              </p>
              <Act
                look="plain"
                disabled={record.isPending}
                onClick={() => void end({ not_tested: view.untested.map((row) => row.id) })}
              >
                {words.notTestedDo}
              </Act>
            </details>
          )}
        </>
      )}
      <Problem error={keep.error} text={problem} />
      <EventProblem event={record} />
      <Act as="a" look="plain" href={`/api/jobs/${view.job.id}/report.pdf`} target="_blank" rel="noreferrer">
        {words.sheet}
      </Act>
      <p className="quiet">{words.cautions}</p>
    </Card>
  );
}
