import type { MouseEvent } from "react";
import type { Trace } from "../../api/client";
import type { Objective, SuspectsView } from "../../api/suspects";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { NextBar } from "../../app/NextBar";
import { UndoLast } from "../../app/UndoLast";
import { line as words } from "../../words/trace";
import { AskNext } from "./AskNext";
import { EndingCard } from "./EndingCard";
import { SuspectsCard } from "./SuspectsCard";

type Props = {
  jobId: string;
  trace: Trace;
  onTake: (key: string) => void;
  suspects: SuspectsView | undefined;
  onObjective: (objective: Objective) => void;
};

/** Whoever types taps once: without the focus the phone's rail grows back and moves the button from under the finger. */
export const keepFocus = (event: MouseEvent) => {
  if ((event.target as Element).closest("a, button, summary")) event.preventDefault();
};

/** Right column: what to do next, and who is suspected. */
export function SideColumn({ jobId, trace, onTake, suspects, onObjective }: Props) {
  const next = trace.lines.find((line) => line.key === trace.next_line);
  const hasNext = suspects !== undefined && !suspects.preparing;
  return (
    <aside className="side" onMouseDown={keepFocus}>
      {suspects && <AskNext jobId={jobId} ask={suspects.ask} onTake={onTake} />}
      {suspects && <EndingCard jobId={jobId} view={suspects} />}
      <UndoLast jobId={jobId} skips="reading" />
      {!hasNext && (
        <Card className="next">
          {next ? (
            <>
              <div>
                <h2>{words.next}</h2>
                <p className="big">
                  {next.part_title}, {next.title}
                </p>
                <p className="quiet">
                  {next.should} · {next.minutes} min · {words.nextWhy}
                </p>
              </div>
              <Act onClick={() => onTake(next.key)}>{words.take}</Act>
            </>
          ) : (
            <p>{words.allAsked}</p>
          )}
        </Card>
      )}
      {suspects && <SuspectsCard view={suspects} onObjective={onObjective} />}
      <NextBar jobId={jobId} isOver={trace.job.ended !== null} />
    </aside>
  );
}
