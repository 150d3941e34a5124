import { IconAlertTriangleFilled } from "@tabler/icons-react";
import { useParams } from "react-router";
import type { SafeState } from "../../api/client";
import { useSafe } from "../../api/rooms";
import { JobRoom } from "../../app/JobRoom";
import { ReadingField } from "../../app/ReadingField";
import { timeOf } from "../../app/times";
import { recordWords, safe as words } from "../../words/safe";
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
        <SafeSteps view={view} />
      </div>
      <div>
        {view.hazards.length > 0 && <Hazards view={view} />}
        <PowerCard view={view} />
        <section className="card leaf" aria-label={words.cautions}>
          <h2>{words.cautions}</h2>
          <ul className="cautions">
            <li>{words.caution}</li>
            {view.cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
        </section>
        <section className="card leaf" aria-label={words.records}>
          <h2>{words.records}</h2>
          {view.records.length === 0 && <p className="quiet">{words.noRecords}</p>}
          <ul className="records">
            {view.records.slice(0, 12).map((record) => (
              <li key={record.id}>
                <span className="mono">{timeOf(record.at)}</span> {recordWords(record.body)}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}

/** The dangers that are open, and what closes each. */
function Hazards({ view }: { view: SafeState }) {
  return (
    <section className="card leaf hazards" aria-label={words.hazards}>
      <h2>
        <IconAlertTriangleFilled size={20} aria-hidden /> {words.hazards}
      </h2>
      <ul>
        {view.hazards.map((hazard) => (
          <li key={hazard.hazard}>
            <b>{hazard.words}</b>
            <span>{hazard.remedy}</span>
          </li>
        ))}
      </ul>
      {view.missing.length > 0 && (
        <>
          <h3>{words.forPower}</h3>
          <ul>
            {view.missing.map((proof) => (
              <li key={proof.key}>
                {proof.title}: {words.atMost} {proof.should}
                <ReadingField
                  jobId={view.job.id}
                  typed={`${proof.typed}${view.job.safety === "dead" ? "" : "loose "}`}
                  label={proof.title}
                />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
