import { useState } from "react";
import { useParams } from "react-router";
import { type TripMethod, type TripView, useTrip } from "../../api/trip";
import { JobRoom } from "../../app/JobRoom";
import { trip as words } from "../../words/trip";
import { RunForm } from "./RunForm";
import { RunMatrix } from "./RunMatrix";
import "./trip.css";

const METHODS: TripMethod[] = ["insulation", "leakage"];

/** Which part leaks: runs with parts connected in groups, what they prove, and what to pull next. */
export function TripRoom() {
  const { jobId = "" } = useParams();
  const [method, setMethod] = useState<TripMethod>("insulation");
  const { data, error } = useTrip(jobId, method);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      <div className="chips trip-methods">
        {METHODS.map((id) => (
          <button
            type="button"
            key={id}
            className="chip"
            aria-pressed={id === method}
            onClick={() => setMethod(id)}
          >
            {words.methods[id]}
          </button>
        ))}
      </div>
      {data && <Loaded key={method} view={data} />}
    </JobRoom>
  );
}

function Loaded({ view }: { view: TripView }) {
  const [connected, setConnected] = useState<string[] | null>(null);
  const suggested = view.next?.connected ?? view.parts.map((part) => part.id);
  return (
    <div className="trip">
      <RunMatrix view={view} jobId={view.job.id} />
      <aside>
        <section className="card leaf trip-next" aria-label={words.next}>
          <div>
            <h2>{words.next}</h2>
            <p className="big">
              {view.next?.words ?? (view.conflict || view.refused || view.spread || words.done)}
            </p>
          </div>
          {view.next && connected !== null && (
            <button type="button" className="act" onClick={() => setConnected(null)}>
              {words.setUp}
            </button>
          )}
        </section>
        <RunForm
          view={view}
          connected={connected ?? suggested}
          onConnect={setConnected}
          onMade={() => setConnected(null)}
        />
        {view.explanations.length > 0 && view.explanations.length < view.parts.length && (
          <section className="card leaf" aria-label={words.explains}>
            <h2>{words.explains}</h2>
            <ul>
              {view.explanations.map((row) => (
                <li key={row.join()}>{row.join(" + ")}</li>
              ))}
            </ul>
          </section>
        )}
      </aside>
    </div>
  );
}
