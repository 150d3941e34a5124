import { Link } from "react-router";
import type { SuspectsView } from "../../api/suspects";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { AS_NEXT } from "../../app/underHand";
import { endings as words } from "../../words/suspects";

/** How the search has ended: who is named, and the one act that follows. */
export function EndingCard({ jobId, view }: { jobId: string; view: SuspectsView }) {
  const title = view.act?.kind === "leak_test" ? words.isolating : words.titles[view.standing];
  if (!title || view.ask.length > 0) return null;
  const named = view.named.map((row) => row.words);
  const act = view.act;
  return (
    <Card className="next ending" aria-label={title}>
      <div>
        <h2>{title}</h2>
        {named.length > 0 && <p className="big">{named.join(words.and)}</p>}
        {act && (
          <p>
            {act.words}
            {act.kind === "repair" && ` · ${words.minutes(act.minutes)}`}
          </p>
        )}
        {act?.kind === "repair" && <p className="quiet">{words.why}</p>}
      </div>
      {act?.kind === "repair" && (
        <Act as={Link} to={`/jobs/${jobId}/repair`} state={AS_NEXT}>
          {words.go}
        </Act>
      )}
      {act?.kind === "leak_test" && (
        <Act as={Link} to={`/jobs/${jobId}/trip`} state={AS_NEXT}>
          {words.goTrip}
        </Act>
      )}
      {view.standing === "settled" && (
        <Act as={Link} to={`/jobs/${jobId}/prove`} state={AS_NEXT}>
          {words.prove}
        </Act>
      )}
    </Card>
  );
}
