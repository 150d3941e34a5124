import { useState } from "react";
import { Link, useParams } from "react-router";
import { type TripMethod, type TripView, useTrip } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { JobRoom } from "../../app/JobRoom";
import { UntilEnded } from "../../app/UntilEnded";
import { AS_NEXT } from "../../app/underHand";
import { trip as words } from "../../words/trip";
import { AfterCulprit } from "./AfterCulprit";
import { HouseCard } from "./HouseCard";
import { RunForm } from "./RunForm";
import { RunLine } from "./RunLine";
import { RunMatrix } from "./RunMatrix";
import { RunStory } from "./RunStory";
import { TriageCard } from "./TriageCard";
import "./trip.css";

const METHODS: TripMethod[] = ["insulation", "leakage"];

/** Which part leaks: runs with parts connected in groups, what they prove, and what to pull next. */
export function TripRoom() {
  const { jobId = "" } = useParams();
  const [method, setMethod] = useState<TripMethod | null>(null);
  const { data, error } = useTrip(jobId, method);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      <div className="chips trip-methods">
        {METHODS.map((id) => (
          <Chip key={id} isOn={id === (method ?? data?.method)} onClick={() => setMethod(id)}>
            {words.methods[id]}
          </Chip>
        ))}
      </div>
      {data && <Loaded key={data.method} view={data} />}
    </JobRoom>
  );
}

type Set = { connected: string[]; maybe: string[] };

function Loaded({ view }: { view: TripView }) {
  const [set, setSet] = useState<Set | null>(null);
  const suggested = view.next?.connected ?? view.parts.map((part) => part.id);
  return (
    <UntilEnded job={view.job}>
      <div className="trip">
        <div className="trip-main">
          <Guilty view={view} />
          {view.runs.length === 0 && <TriageCard triage={view.triage} />}
          <RunMatrix view={view} jobId={view.job.id} />
          <RunLine view={view} />
          {view.runs.length > 0 && <RunStory view={view} />}
          {view.runs.length > 0 && <TriageCard triage={view.triage} />}
          <HouseCard key={JSON.stringify(view.house.noted)} house={view.house} jobId={view.job.id} />
        </div>
        <aside>
          {view.job.ended === null && (
            <Card className="trip-next" aria-label={words.next} aria-current={view.next ? "step" : undefined}>
              <div>
                <h2>{words.next}</h2>
                <p className="big">
                  {view.conflict || view.refused || view.advice || view.spread || words.done}
                </p>
                {view.next?.reason && <p className="quiet">{view.next.reason}</p>}
              </div>
              {view.next && set !== null && (
                <Act look="plain" onClick={() => setSet(null)}>
                  {words.setUp}
                </Act>
              )}
              <RunForm
                view={view}
                connected={set?.connected ?? suggested}
                maybe={set?.maybe ?? []}
                onConnect={(connected, maybe) => setSet({ connected, maybe })}
                onMade={() => setSet(null)}
              />
            </Card>
          )}
          {view.explanations.length > 0 && view.explanations.length < view.parts.length && (
            <Card aria-label={words.explains}>
              <h2>{words.explains}</h2>
              <ul>
                {view.explanations.map((row) => (
                  <li key={row.join()}>{row.join(" + ")}</li>
                ))}
              </ul>
            </Card>
          )}
          <AfterCulprit view={view} />
        </aside>
      </div>
    </UntilEnded>
  );
}

/** Who leaks, once it is proved, with the way to mend it. */
function Guilty({ view }: { view: TripView }) {
  const guilty = view.parts.filter((part) => part.state === "guilty");
  if (guilty.length === 0) return null;
  return (
    <Card className="trip-verdict" aria-label={words.verdict}>
      <div>
        {guilty.map((part) => (
          <p key={part.id}>
            <b className="big">{words.leaksOne(part.title)}</b>
            <br />
            {words.provedTo(part.proved, part.limit)}
          </p>
        ))}
      </div>
      <Act
        as={Link}
        look={view.leads_to === "repair" ? "main" : "plain"}
        to={`/jobs/${view.job.id}/repair`}
        state={AS_NEXT}
      >
        {words.toRepair}
      </Act>
    </Card>
  );
}
