import { useParams } from "react-router";
import { useRepair } from "../../api/repair";
import { JobRoom } from "../../app/JobRoom";
import { repair as words } from "../../words/repair";
import { ChangeForm } from "./ChangeForm";
import { ConnectorsCard } from "./ConnectorsCard";
import { PartsCard } from "./PartsCard";
import { StepList } from "./StepList";
import { StripCard } from "./StripCard";
import { TricksCard } from "./TricksCard";
import { WorthCard } from "./WorthCard";
import "./repair.css";

/** What was changed and what ran after it, and what each way to go on is worth. */
export function RepairRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useRepair(jobId);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && (
        <div className="repair">
          <div className="repair-main">
            <StepList view={data} />
            <StripCard view={data} />
            <ConnectorsCard view={data} />
            <PartsCard view={data} />
            <WorthCard key={data.leader} view={data} />
          </div>
          {!data.is_over && (
            <aside>
              <ChangeForm view={data} />
              <TricksCard key={data.leader} view={data} />
            </aside>
          )}
        </div>
      )}
    </JobRoom>
  );
}
