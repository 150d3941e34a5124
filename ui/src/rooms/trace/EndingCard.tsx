import { Link } from "react-router";
import type { SuspectsView } from "../../api/suspects";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { AS_NEXT } from "../../app/underHand";
import { endings as words } from "../../words/suspects";

/** What is next where no question is: the one act that follows, and who is named. */
export function EndingCard({ jobId, view }: { jobId: string; view: SuspectsView }) {
  const act = view.act;
  if (!act || view.ask.length > 0) return null;
  const isIsolating = act.kind === "leak_test" && view.named.length === 0;
  const title = isIsolating ? words.isolating : (words.titles[view.standing] ?? words.next);
  const named = view.named.map((row) => row.words);
  const isHere = act.room === "trace";
  return (
    <Card className="next ending" aria-label={title}>
      <div>
        <h2>{title}</h2>
        {named.length > 0 && <p className="big">{named.join(words.and)}</p>}
        <p>
          {act.words}
          {act.kind === "repair" && ` · ${words.minutes(act.minutes)}`}
        </p>
        {act.kind === "repair" && <p className="quiet">{words.why}</p>}
      </div>
      {!isHere && (
        <Act as={Link} to={`/jobs/${jobId}/${act.room}`} state={AS_NEXT}>
          {words.goTo[act.kind] ?? words.go}
        </Act>
      )}
    </Card>
  );
}
