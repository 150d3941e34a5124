import { Link } from "react-router";
import type { EventBody } from "../../api/client";
import { useEvent } from "../../api/events";
import type { Criterion } from "../../api/proof";
import { Act } from "../../app/controls/Act";
import { Problem } from "../../app/Problem";
import { prove as words } from "../../words/prove";

type Props = { jobId: string; of: Pick<Criterion, "needs" | "needs_words"> };

/** How the machine has to stand for it, and the act that leads there: whoever presses it says that it was done. */
export function Needs({ jobId, of }: Props) {
  const record = useEvent(jobId);
  const act: EventBody = of.needs === "powered" ? { kind: "plugged_in" } : { kind: "isolated" };
  return (
    <div className="row wrap">
      <span>
        {words.needs} <b>{of.needs_words}</b>.
      </span>
      {of.needs === "proved_dead" || of.needs === "dead" ? (
        <Act as={Link} look="plain" to={`/jobs/${jobId}/safe`}>
          {words.proveDead}
        </Act>
      ) : (
        <Act look="plain" disabled={record.isPending} onClick={() => record.mutate(act)}>
          {of.needs === "powered" ? words.plugIn : words.unplug}
        </Act>
      )}
      <Problem error={record.error} />
    </div>
  );
}
