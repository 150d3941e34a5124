import { Link, useNavigate } from "react-router";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { Criterion } from "../../api/proof";
import { Act } from "../../app/controls/Act";
import { EventProblem } from "../../app/EventProblem";
import { prove as words } from "../../words/prove";

type Props = { jobId: string; of: Pick<Criterion, "needs" | "needs_words"> };

/** How the machine has to stand for it, and the act that leads there: whoever presses it says that it was done. */
export function Needs({ jobId, of }: Props) {
  const record = useEvent(jobId);
  const navigate = useNavigate();
  const inHand = () =>
    record.mutate(
      { kind: "isolated", how: "plug_in_hand" },
      { onSuccess: () => void navigate(`/jobs/${jobId}/safe#series`) },
    );
  const act: EventBody = of.needs === "powered" ? { kind: "plugged_in" } : { kind: "isolated" };
  return (
    <div className="row wrap">
      <span>
        {words.needs} <b>{of.needs_words}</b>.
      </span>
      {of.needs === "proved_dead" || of.needs === "dead" ? (
        <>
          <Act as={Link} look="plain" to={`/jobs/${jobId}/safe#series`}>
            {words.proveDead}
          </Act>
          {of.needs === "proved_dead" && (
            <Act look="plain" disabled={record.isPending} onClick={inHand}>
              {words.inHand}
            </Act>
          )}
        </>
      ) : (
        <Act look="plain" disabled={record.isPending} onClick={() => record.mutate(act)}>
          {of.needs === "powered" ? words.plugIn : words.unplug}
        </Act>
      )}
      <EventProblem event={record} />
    </div>
  );
}
