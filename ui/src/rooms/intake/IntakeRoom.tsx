import { useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { Intake } from "../../api/client";
import { askAgain } from "../../api/freshness";
import { useIntake } from "../../api/intake";
import { roomKey } from "../../api/writing";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { JobRoom } from "../../app/JobRoom";
import { UntilEnded } from "../../app/UntilEnded";
import { intake as words } from "../../words/intake";
import { ComplaintCard } from "./ComplaintCard";
import { EndJob } from "./EndJob";
import { FirstLook } from "./FirstLook";
import "./intake.css";
import { PlateCard } from "./PlateCard";
import { useIntakeDraft } from "./useIntakeDraft";
import { VanCard } from "./VanCard";
import { VisitsCard } from "./VisitsCard";

/** Taking the job: complaint, plate, what to take along, and the look outside the machine. */
export function IntakeRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useIntake(jobId);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && <Loaded key={jobId} view={data} />}
    </JobRoom>
  );
}

function Loaded({ view }: { view: Intake }) {
  const intake = useIntakeDraft(view);
  const queries = useQueryClient();
  const refresh = () => askAgain(queries, { queryKey: roomKey(view.job.id, "intake") });
  return (
    <>
      {intake.state === "conflict" && (
        <Card as="div" className="intake-conflict" role="alert">
          <p>
            <b>{words.conflict}</b>
            {intake.differs.length > 0 &&
              ` ${words.differs} ${intake.differs.map((name) => words.fields[name]).join(", ")}.`}
          </p>
          <div className="row">
            <Act onClick={intake.keepMine}>{words.keepMine}</Act>
            <Act look="plain" onClick={() => void refresh().then(intake.takeTheirs)}>
              {words.takeTheirs}
            </Act>
          </div>
        </Card>
      )}
      <nav className="jump" aria-label={words.jump}>
        {words.jumps.map(([id, said]) => (
          <a key={id} href={`#${id}`}>
            {said}
          </a>
        ))}
      </nav>
      <div className="two-columns">
        <div>
          <UntilEnded job={view.job}>
            <ComplaintCard view={view} intake={intake} />
            <FirstLook view={view} />
          </UntilEnded>
        </div>
        <div>
          <VanCard van={view.van} />
          <UntilEnded job={view.job}>
            <PlateCard view={view} intake={intake} />
          </UntilEnded>
          <VisitsCard visits={view.visits} />
          <EndJob job={view.job} />
        </div>
      </div>
    </>
  );
}
