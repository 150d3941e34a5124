import type { SheetView } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { machines as words } from "../../words/machines";
import type { useSheetDraft } from "./useSheetDraft";

type DraftProps = { draft: ReturnType<typeof useSheetDraft>; view: SheetView };

/** Where the draft stands, and the two ways out of it. */
export function DraftBar({ draft, view }: DraftProps) {
  const { state } = draft;
  const refusing = view.remarks.filter((remark) => remark.refused).length;
  const isDraft = state !== "used";
  return (
    <Card as="div" className="sheet-bar">
      <p className="grow" role="status">
        {state === "conflict" || state === "problem" ? draft.problem : words.kept[state]}
        {refusing > 0 && ` · ${refusing} × ${words.refusing}`}
      </p>
      {state === "conflict" && (
        <>
          <Act look="plain" onClick={draft.keepMine}>
            {words.mine}
          </Act>
          <Act look="plain" onClick={draft.takeTheirs}>
            {words.theirs}
          </Act>
        </>
      )}
      <Act look="plain" disabled={!isDraft} onClick={draft.drop}>
        {words.drop}
      </Act>
      <Act disabled={state !== "kept" || refusing > 0} onClick={draft.use}>
        {words.use}
      </Act>
    </Card>
  );
}
