import type { SheetView } from "../../api/sheets";
import { machines as words } from "../../words/machines";
import type { useSheetDraft } from "./useSheetDraft";

type DraftProps = { draft: ReturnType<typeof useSheetDraft>; view: SheetView };

/** Where the draft stands, and the two ways out of it. */
export function DraftBar({ draft, view }: DraftProps) {
  const { state } = draft;
  const refusing = view.remarks.filter((remark) => remark.refused).length;
  const isDraft = state !== "used";
  return (
    <div className="card leaf sheet-bar">
      <p className="grow" role="status">
        {state === "conflict" || state === "problem" ? draft.problem : words.kept[state]}
        {refusing > 0 && ` · ${refusing} × ${words.refusing}`}
      </p>
      {state === "conflict" && (
        <>
          <button type="button" className="plain bordered" onClick={draft.keepMine}>
            {words.mine}
          </button>
          <button type="button" className="plain bordered" onClick={draft.takeTheirs}>
            {words.theirs}
          </button>
        </>
      )}
      <button type="button" className="plain bordered" disabled={!isDraft} onClick={draft.drop}>
        {words.drop}
      </button>
      <button type="button" className="act" disabled={state !== "kept" || refusing > 0} onClick={draft.use}>
        {words.use}
      </button>
    </div>
  );
}
