import { useState } from "react";
import type { EventBody, SafeState } from "../../api/client";
import { useEvent } from "../../api/events";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { power as words } from "../../words/safe";
import { LiveDialog } from "./LiveDialog";
import { HazardForm, PanelForm, ReclosedForm, SaidForm, TripForm } from "./powerForms";

type Form = "panel" | "trip" | "hazard" | "reclose" | "powered" | "outlet";

/** What changes the state of voltage: plugging in, live mode, a panel off, a trip, a danger. */
export function PowerCard({ view }: { view: SafeState }) {
  const { job } = view;
  const event = useEvent(job.id);
  const [form, setForm] = useState<Form | null>(null);
  const [isLiveOpen, setIsLiveOpen] = useState(false);
  const send = async (body: EventBody) => {
    try {
      await event.mutateAsync(body);
      setForm(null);
    } catch {
      // said below
    }
  };
  /** What is stated by one touch: its refusal stands right beneath it. */
  const say = (body: EventBody) => {
    setForm(null);
    return send(body);
  };
  const opener = (wanted: Form, label: string) => (
    <Chip aria-expanded={form === wanted} onClick={() => setForm(form === wanted ? null : wanted)}>
      {label}
    </Chip>
  );
  return (
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      {view.refusals.length > 0 && (
        <p className="danger-words" title={view.refusals.join("; ")}>
          {words.refused}
        </p>
      )}
      <div className="chips">
        <Chip onClick={() => void say({ kind: "plugged_in" })}>{words.plugIn}</Chip>
        <Chip id="live" className="danger" onClick={() => setIsLiveOpen(true)}>
          {job.safety === "live" ? words.leaveLive : words.live}
        </Chip>
        {view.is_prover && job.safety === "dead" && (
          <Chip onClick={() => void say({ kind: "hands_off" })}>{words.handsOff}</Chip>
        )}
      </div>
      {form === null && <EventProblem event={event} />}
      {view.others_in && (
        <p id="hands" className="danger-words">
          {words.handsIn}
        </p>
      )}
      <p className="quiet" style={{ margin: 0 }}>
        {words.plugInHelp}
      </p>
      <h3>{words.happened}</h3>
      <div className="chips">
        {opener("panel", words.panel)}
        {opener("trip", words.tripped)}
        {opener("reclose", words.reclose)}
        {opener("hazard", words.hazard)}
        {opener("powered", words.powered)}
        {opener("outlet", words.outlet)}
      </div>
      {form !== null && <EventProblem event={event} />}
      {form === "panel" && <PanelForm view={view} send={send} />}
      {form === "trip" && <TripForm jobId={job.id} send={send} />}
      {form === "reclose" && <ReclosedForm send={send} />}
      {form === "hazard" && <HazardForm send={send} />}
      {form === "powered" && (
        <SaidForm
          label={words.poweredHow}
          act={words.poweredDo}
          isOptional
          send={(said) => send({ kind: "found_powered", words: said })}
        />
      )}
      {form === "outlet" && (
        <SaidForm
          label={words.outletWhich}
          act={words.outletDo}
          send={(said) => send({ kind: "outlet_named", words: said })}
        />
      )}
      <LiveDialog job={job} opened={isLiveOpen} onClose={() => setIsLiveOpen(false)} />
    </Card>
  );
}
