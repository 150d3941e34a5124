import { type Raw, type SheetView, useDraftActs } from "../../api/sheets";
import { useKeptDraft } from "../../app/useKeptDraft";

const KEEP_AFTER_MS = 600;

/** A sheet as it is being changed: every change is kept as a draft, whole or not. */
export function useSheetDraft(view: SheetView) {
  const acts = useDraftActs(view.id);
  const kept = useKeptDraft<Raw>({
    key: `ohmcensus.sheet.${view.id}`,
    start: heldBy(view),
    send: async (raw, revision) => heldBy(await acts.mutateAsync({ kind: "keep", raw, revision })),
    afterMs: KEEP_AFTER_MS,
  });
  const end = async (act: "use" | "drop") => {
    try {
      const after = await acts.mutateAsync(
        act === "use" ? { kind: act, revision: kept.base } : { kind: act },
      );
      kept.reset(heldBy(after));
    } catch (error) {
      kept.fail(error as Error);
    }
  };
  return {
    raw: kept.draft,
    state: kept.state === "kept" && kept.base === 0 ? ("used" as const) : kept.state,
    problem: kept.problem,
    change: (part: Raw) => kept.change((raw) => ({ ...raw, ...part })),
    use: () => void end("use"),
    drop: () => void end("drop"),
    keepMine: kept.keepMine,
    takeTheirs: () => kept.reset(heldBy(view)),
  };
}

const heldBy = (view: SheetView) => ({ draft: view.raw, base: view.revision });
