import { NativeSelect } from "@mantine/core";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { useEvent } from "../../api/events";
import type { TripView } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { usePad } from "../../app/Keypad";
import { bringUp } from "../../app/underHand";
import { useForm } from "../../app/useForm";
import { trip as words } from "../../words/trip";

type Props = {
  view: TripView;
  connected: string[];
  maybe: string[];
  onConnect: (connected: string[], maybe: string[]) => void;
  onMade: () => void;
};

/** What is connected and what the tester shows; what is typed stays until it is stored. */
export function RunForm({ view, connected, maybe, onConnect, onMade }: Props) {
  const [text, setText, forget] = useForm(`ohmcensus.leakTest.${view.job.id}.${view.method}`, "");
  const pad = usePad();
  const [comesAndGoes, setComesAndGoes] = useState(false);
  const [polarity, setPolarity] = useState<"normal" | "reversed">("normal");
  const [states, setStates] = useState<Record<string, string>>({});
  const record = useEvent(view.job.id);
  // A test that was made here is followed by the next one; whoever types whole lines stays with their line.
  const isMade = useRef(false);
  const made = view.runs.length;
  useEffect(() => {
    if (isMade.current && made > 0) bringUp();
    isMade.current = false;
  }, [made]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await record.mutateAsync({
        kind: "run_made",
        method: view.method,
        connected,
        maybe,
        states,
        are_wires_insulated: false,
        text,
        meter: "",
        polarity: view.method === "leakage" ? polarity : null,
        is_intermittent: comesAndGoes,
      });
      isMade.current = true;
      forget();
      onMade();
    } catch {
      // said below
    }
  };
  const without = (rows: string[], part: string) => rows.filter((id) => id !== part);
  const toggle = (part: string) => {
    if (connected.includes(part)) onConnect(without(connected, part), maybe);
    else if (maybe.includes(part)) onConnect([...connected, part], without(maybe, part));
    else onConnect(connected, [...maybe, part]);
  };
  return (
    <form className="run-form" onSubmit={(event) => void submit(event)} aria-label={words.make}>
      {view.may_run && <p className="notice">{view.may_run}</p>}
      <label className="run-reading">
        <span>{words.reading(view.unit)}</span>
        <input
          {...pad}
          value={text}
          placeholder={words.placeholder[view.method]}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          maxLength={40}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      </label>
      <EventProblem event={record} />
      <Act type="submit" disabled={!text.trim() || connected.length + maybe.length === 0 || record.isPending}>
        {words.enter}
      </Act>
      <fieldset>
        <legend>{words.tick}</legend>
        <div className="chips">
          {view.parts.map((part) => (
            <span key={part.id} className="chip-pair">
              <Chip
                isOn={maybe.includes(part.id) ? "mixed" : connected.includes(part.id)}
                onClick={() => toggle(part.id)}
              >
                {part.title}
                {maybe.includes(part.id) && " ?"}
              </Chip>
              <button
                type="button"
                aria-label={words.onlyOf(part.title)}
                onClick={() => onConnect([part.id], [])}
              >
                {words.only}
              </button>
            </span>
          ))}
        </div>
        <p className="quiet">{words.cycle}</p>
      </fieldset>
      {view.method === "leakage" && view.is_plug_reversible && (
        <fieldset>
          <legend>{words.polarity}</legend>
          <div className="chips">
            {(["normal", "reversed"] as const).map((way) => (
              <Chip key={way} isOn={way === polarity} onClick={() => setPolarity(way)}>
                {words.polarities[way]}
              </Chip>
            ))}
          </div>
        </fieldset>
      )}
      <details>
        <summary>{words.stands}</summary>
        {Object.entries(view.states).map(([name, values]) => (
          <NativeSelect
            key={name}
            label={name.replaceAll("_", " ")}
            value={states[name] ?? values[0] ?? ""}
            data={values}
            onChange={(event) => setStates({ ...states, [name]: event.currentTarget.value })}
          />
        ))}
      </details>
      <label className="run-tick">
        <input
          type="checkbox"
          checked={comesAndGoes}
          onChange={(event) => setComesAndGoes(event.currentTarget.checked)}
        />
        {words.intermittent}
      </label>
      <p className="quiet">{caution(view)}</p>
      {view.off_first.length > 0 && (
        <p className="quiet">
          {words.offFirst} {view.off_first.join(", ")}. {words.notAsked}
        </p>
      )}
    </form>
  );
}

/** What can hurt at this test. */
function caution(view: TripView): string {
  if (view.method === "insulation") return words.caution;
  return view.is_plug_reversible ? words.cautionLive : words.cautionLiveOneWay;
}
