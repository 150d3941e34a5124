import { useParams } from "react-router";
import { useProof } from "../../api/proof";
import { Card } from "../../app/controls/Card";
import { JobRoom } from "../../app/JobRoom";
import { useFollow } from "../../app/underHand";
import { prove as words } from "../../words/prove";
import { CriterionRow } from "./CriterionRow";
import { SignOff } from "./SignOff";
import "./prove.css";

/** Proof after repair in its order, and signing off. */
export function ProveRoom() {
  const { jobId = "" } = useParams();
  const { data, error } = useProof(jobId);
  useFollow(data && (data.criteria.find((row) => row.is_next)?.id ?? ""));
  return (
    <JobRoom title={words.title} job={data?.job} error={error}>
      {data && (
        <div className="prove">
          <Card aria-label={words.list}>
            <h2>{words.list}</h2>
            <p className="quiet">{data.is_asked ? words.intro : words.noChange}</p>
            {data.is_insulation_barred && <p className="notice">{words.isBarred}</p>}
            <ol className="criteria">
              {data.criteria.map((row) => (
                <CriterionRow key={row.id} view={data} row={row} />
              ))}
            </ol>
          </Card>
          <aside>
            <SignOff view={data} />
          </aside>
        </div>
      )}
    </JobRoom>
  );
}
