import { type FormEvent, useState } from "react";
import { type TripView, useRunPreview, useTakeLeakTest } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { WaysOn, waysOf } from "../../app/WaysOn";
import { trip as words } from "../../words/trip";

const BY_DEVICE = ["trips", "holds"];

/** A whole run in one line: what is off or alone on, and the reading; it says what it understood before Enter. */
export function RunLine({ view }: { view: TripView }) {
  const [line, setLine, forget] = useForm(`ohmcensus.leakLine.${view.job.id}`, "");
  const [isInsulated, setIsInsulated] = useState(false);
  const { answer } = useRunPreview(view.job.id, line, view.method);
  const take = useTakeLeakTest(view.job.id);
  const said = answer ?? undefined;
  const submit = async (event?: FormEvent, more: Record<string, unknown> = {}) => {
    event?.preventDefault();
    if (!line.trim()) return;
    try {
      await take.mutateAsync({ line, method: view.method, are_wires_insulated: isInsulated, ...more });
      forget();
    } catch {
      // said below
    }
  };
  return (
    <Card
      as="form"
      id="leak-test"
      className="run-line"
      aria-label={words.line}
      onSubmit={(event) => void submit(event)}
    >
      <label className="run-reading">
        <span>{words.line}</span>
        <input
          value={line}
          placeholder={words.lineHint}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          maxLength={200}
          onChange={(event) => {
            setLine(event.currentTarget.value);
            take.reset();
          }}
        />
      </label>
      {said && (
        <p className={said.problem ? "problem" : ""} aria-live="polite">
          {said.problem || said.words}
        </p>
      )}
      {said && BY_DEVICE.includes(said.text ?? "") && (
        <label className="run-tick">
          <input
            type="checkbox"
            checked={isInsulated}
            onChange={(event) => setIsInsulated(event.currentTarget.checked)}
          />
          {words.insulated}
        </label>
      )}
      {!said?.problem && <Problem error={take.error} />}
      {!said?.problem && (
        <WaysOn
          jobId={view.job.id}
          acts={waysOf(take.error)}
          again={(more) => void submit(undefined, more)}
        />
      )}
      {said?.text && !said.problem && (
        <Act type="submit" disabled={take.isPending}>
          {words.enter}
        </Act>
      )}
    </Card>
  );
}
