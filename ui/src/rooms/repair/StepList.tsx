import type { RepairView } from "../../api/repair";
import { Card } from "../../app/controls/Card";
import { timeOf } from "../../app/times";
import { repair as words } from "../../words/repair";

/** Changes and runs in order; a run says by its mark and its word whether it passed. */
export function StepList({ view }: { view: RepairView }) {
  return (
    <Card aria-label={words.changes}>
      <h2>{words.changes}</h2>
      {view.cured && (
        <p className="repair-cured" role="status">
          {view.cured}
        </p>
      )}
      {view.steps.length === 0 ? (
        <p className="quiet">{words.none}</p>
      ) : (
        <ol className="repair-steps">
          {view.steps.map((step) => (
            <li key={step.id} className={step.has_passed === null ? "change" : "run"}>
              <span className="mono quiet">{timeOf(step.at)}</span>
              <span>{step.words}</span>
              {step.has_passed !== null && <b>{step.has_passed ? words.passed : words.failed}</b>}
            </li>
          ))}
        </ol>
      )}
    </Card>
  );
}
