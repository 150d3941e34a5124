import { useParams } from "react-router";
import type { SafeState } from "../../api/client";
import { useSafe } from "../../api/safe";
import { Card } from "../../app/controls/Card";
import { JobRoom } from "../../app/JobRoom";
import { timeOf } from "../../app/times";
import { UntilEnded } from "../../app/UntilEnded";
import { safe as words } from "../../words/safe";
import { Dangers } from "./Dangers";
import { PowerCard } from "./PowerCard";
import { SafeSteps } from "./SafeSteps";
import "./safe.css";

/** Making this machine safe, proving it dead, and the rules for power. */
export function SafeRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useSafe(jobId);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && <Loaded view={data} />}
    </JobRoom>
  );
}

function Loaded({ view }: { view: SafeState }) {
  return (
    <div className="two-columns">
      <div>
        <UntilEnded job={view.job}>
          <SafeSteps view={view} />
        </UntilEnded>
      </div>
      <div>
        <UntilEnded job={view.job}>
          {(view.hazards.length > 0 || view.missing.length > 0) && <Dangers view={view} />}
          <PowerCard view={view} />
        </UntilEnded>
        <Card aria-label={words.cautions}>
          <h2>{words.cautions}</h2>
          <ul className="cautions">
            <li>{words.caution}</li>
            {view.cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
        </Card>
        <Card aria-label={words.records}>
          <h2>{words.records}</h2>
          {view.voltages.length > 0 && (
            <ul className="records">
              {view.voltages.slice(0, 6).map((row) => (
                <li key={row.at + row.words} className="danger-words">
                  <span className="mono">{timeOf(row.at)}</span> {row.words}
                </li>
              ))}
            </ul>
          )}
          {view.records.length === 0 && <p className="quiet">{words.noRecords}</p>}
          <ul className="records">
            {view.records.slice(0, 12).map((record) => (
              <li key={record.id}>
                <span className="mono">{timeOf(record.at)}</span> {record.words}
              </li>
            ))}
          </ul>
        </Card>
      </div>
    </div>
  );
}
