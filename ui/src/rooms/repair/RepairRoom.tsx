import { useState } from "react";
import { useParams } from "react-router";
import { type RepairView, useRepair } from "../../api/repair";
import { JobRoom } from "../../app/JobRoom";
import { wayBack, repair as words } from "../../words/repair";
import { ChangeForm } from "./ChangeForm";
import { ConnectorsCard } from "./ConnectorsCard";
import { PartsCard } from "./PartsCard";
import { ReplaceCard } from "./ReplaceCard";
import { StepList } from "./StepList";
import { StripCard } from "./StripCard";
import { TricksCard } from "./TricksCard";
import { WayBack } from "./WayBack";
import { WorthCard } from "./WorthCard";
import "./repair.css";

/** What was changed and what ran after it, and what each way to go on is worth. */
export function RepairRoom() {
  const { jobId = "" } = useParams();
  const [part, setPart] = useState("");
  const { data, error } = useRepair(jobId, part);
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && <Loaded key={data.leader} view={data} onPart={setPart} />}
    </JobRoom>
  );
}

function Loaded({ view, onPart }: { view: RepairView; onPart: (part: string) => void }) {
  const [sawFail, setSawFail] = useState<boolean | null>(null);
  if (view.way_back.some((row) => !row.is_done)) return <OnTheWayBack view={view} />;
  return (
    <div className="repair">
      <div className="repair-main">
        {view.steps.length > 0 && <StepList view={view} />}
        <StripCard view={view} onPart={onPart} />
        <ConnectorsCard view={view} />
        <PartsCard view={view} sawFail={sawFail} />
        <WorthCard view={view} />
      </div>
      {!view.is_over && (
        <aside>
          <ReplaceCard key={view.plan.part} view={view} sawFail={sawFail} onSawFail={setSawFail} />
          <ChangeForm key={`change ${view.plan.part}`} view={view} sawFail={sawFail} />
          <TricksCard key={`tricks ${view.plan.part}`} view={view} />
        </aside>
      )}
    </div>
  );
}

/** While something is off or unread after a change, the room is the way back; another change stays folded. */
function OnTheWayBack({ view }: { view: RepairView }) {
  const hasConnectors = view.strip.connectors.length + view.strip.loose.length > 0;
  return (
    <div className="repair on-way-back">
      <div className="repair-main">
        <WayBack view={view} />
        {hasConnectors && <ConnectorsCard view={view} />}
        <StepList view={view} />
        <details>
          <summary>{wayBack.other}</summary>
          <ChangeForm key={view.plan.part} view={view} sawFail={false} />
        </details>
      </div>
    </div>
  );
}
