import { Link } from "react-router";
import type { SuspectsView } from "../../api/suspects";
import { endings as words } from "../../words/suspects";

/** How the search has ended: who is named, and the one act that follows. */
export function EndingCard({ jobId, view }: { jobId: string; view: SuspectsView }) {
  const title = view.act?.kind === "leak_test" ? words.isolating : words.titles[view.standing];
  if (!title || view.ask.length > 0) return null;
  const named = view.named.map((row) => row.words);
  const act = view.act;
  return (
    <section className="card next ending" aria-label={title}>
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
        <Link className="act" to={`/jobs/${jobId}/repair`}>
          {words.go}
        </Link>
      )}
      {act?.kind === "leak_test" && (
        <Link className="act" to={`/jobs/${jobId}/trip`}>
          {words.goTrip}
        </Link>
      )}
      {view.standing === "settled" && (
        <Link className="act" to={`/jobs/${jobId}/prove`}>
          {words.prove}
        </Link>
      )}
    </section>
  );
}
