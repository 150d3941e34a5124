import { useEffect } from "react";
import type { Intake, NewIntake } from "../../api/client";
import { useKeepIntake } from "../../api/intake";
import { type Held, useKeptDraft } from "../../app/useKeptDraft";

const KEEP_AFTER_MS = 700;

export type { Keeping } from "../../app/useKeptDraft";

/** What is typed into the intake. */
export function useIntakeDraft(view: Intake) {
  const keep = useKeepIntake(view.job.id);
  const kept = useKeptDraft<NewIntake>({
    key: `ohmcensus.intake.${view.job.id}`,
    start: heldBy(view),
    send: async (draft, base) => heldBy(await keep.mutateAsync({ ...draft, intake_revision: base })),
    afterMs: KEEP_AFTER_MS,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is stored moved on
  useEffect(() => kept.follow(heldBy(view)), [kept.state, view]);
  return {
    draft: kept.draft,
    change: (part: Partial<NewIntake>) => kept.change((draft) => ({ ...draft, ...part })),
    state: kept.state,
    problem: kept.problem,
    differs: kept.isStale ? differences(kept.draft, heldBy(view).draft) : [],
    keepMine: kept.keepMine,
    takeTheirs: () => kept.reset(heldBy(view)),
  };
}

function heldBy(view: Intake): Held<NewIntake> {
  return {
    draft: {
      machine: view.job.machine,
      place: view.job.place,
      sheet: view.job.sheet,
      complaint: view.complaint,
      plate: view.plate,
    },
    base: view.intake_revision,
  };
}

/** Names of what is not the same in both. */
function differences(mine: NewIntake, other: NewIntake): string[] {
  return (Object.keys(mine) as (keyof NewIntake)[]).filter(
    (name) => JSON.stringify(mine[name]) !== JSON.stringify(other[name]),
  );
}
