import { useState } from "react";
import { useNavigate } from "react-router";
import { useCopySheet } from "../../api/rooms";
import type { SheetView } from "../../api/sheets";
import { machines as words } from "../../words/machines";
import type { useSheetDraft } from "./useSheetDraft";

/** A built-in sheet is copied before it is changed. */
export function CopyBar({ of, title }: { of: string; title: string }) {
  const [name, setName] = useState(`${title.split(",")[0]}, ours`);
  const copy = useCopySheet();
  const navigate = useNavigate();
  const go = async () => {
    try {
      const made = await copy.mutateAsync({ of, title: name });
      void navigate(`/machines/${made.id}`);
    } catch {
      // said below
    }
  };
  return (
    <form
      className="card leaf sheet-bar"
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <p className="quiet grow">{words.copyHelp}</p>
      <label className="sheet-field">
        <span>{words.copyTitle}</span>
        <input value={name} maxLength={120} onChange={(event) => setName(event.currentTarget.value)} />
      </label>
      <button type="submit" className="act" disabled={!name.trim() || copy.isPending}>
        {words.copy}
      </button>
      {copy.error && (
        <p className="problem" role="alert">
          {copy.error.message}
        </p>
      )}
    </form>
  );
}

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
      <button
        type="button"
        className="plain bordered"
        disabled={!isDraft}
        onClick={() => void draft.take("drop")}
      >
        {words.drop}
      </button>
      <button
        type="button"
        className="act"
        disabled={state !== "kept" || refusing > 0}
        onClick={() => void draft.take("use")}
      >
        {words.use}
      </button>
    </div>
  );
}
