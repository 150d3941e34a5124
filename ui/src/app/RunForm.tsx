import { useState } from "react";
import type { EventBody } from "../api/client";
import { useEvent } from "../api/events";
import { run as words } from "../words/frame";
import { Act } from "./controls/Act";
import { Chip } from "./controls/Chip";
import { NumberField } from "./controls/Field";
import { EventProblem } from "./EventProblem";
import { figure } from "./figure";
import { useForm } from "./useForm";

const FIELDS = ["litres", "from_celsius", "to_celsius", "minutes"] as const;
type Field = (typeof FIELDS)[number];
const EMPTY: Record<Field, string> = { litres: "", from_celsius: "", to_celsius: "", minutes: "" };
type Props = {
  jobId: string;
  outcomes: { id: string; words: string }[];
  /** Whether the machine heats water, so that the warming can be timed. */
  heats: boolean;
  /** Whether it is asked that it held on a GFCI. */
  asksGfci?: boolean;
};

/** One run that was watched, with the warming of the water where it was timed; what is typed stays until it is stored. */
export function RunForm({ jobId, outcomes, heats, asksGfci = false }: Props) {
  const record = useEvent(jobId);
  const [typed, setTyped, forget] = useForm(`ohmcensus.run.${jobId}`, EMPTY);
  const [problem, setProblem] = useState("");
  const [gfci, setGfci] = useState<keyof typeof words.gfci | null>(null);
  const send = async (body: EventBody) => {
    try {
      await record.mutateAsync(body);
      forget();
    } catch {
      // said below
    }
  };
  const note = async (outcome: string) => {
    const given = FIELDS.filter((field) => typed[field].trim() !== "");
    const numbers = Object.fromEntries(FIELDS.map((field) => [field, figure(typed[field])]));
    const odd = given.find((field) => !Number.isFinite(numbers[field]));
    if (odd) return setProblem(words.badNumber(words.fields[odd]));
    const missing = given.length > 0 && FIELDS.find((field) => typed[field].trim() === "");
    if (missing) return setProblem(words.missing(words.fields[missing]));
    setProblem("");
    await send({
      kind: "run_watched",
      outcome,
      heat: given.length > 0 ? numbers : null,
      ...(gfci === null ? {} : { on_gfci: gfci !== "none" }),
    } as EventBody);
  };
  return (
    <div className="stack">
      {heats && (
        <details open={FIELDS.some((field) => typed[field] !== "") || undefined}>
          <summary>{words.heat}</summary>
          <div className="run-heat">
            {FIELDS.map((field) => (
              <NumberField
                key={field}
                label={words.fields[field]}
                value={typed[field]}
                onChange={(said) => setTyped({ ...typed, [field]: said })}
              />
            ))}
          </div>
        </details>
      )}
      {asksGfci && (
        <fieldset className="chips on-gfci">
          <legend>{words.onGfci}</legend>
          {(Object.keys(words.gfci) as (keyof typeof words.gfci)[]).map((way) => (
            <Chip key={way} isOn={gfci === way} onClick={() => setGfci(way)}>
              {words.gfci[way]}
            </Chip>
          ))}
        </fieldset>
      )}
      <div className="chips">
        {outcomes.map((row) => (
          <Act look="plain" key={row.id} disabled={record.isPending} onClick={() => void note(row.id)}>
            {row.words}
          </Act>
        ))}
      </div>
      <EventProblem event={record} text={problem} />
    </div>
  );
}
