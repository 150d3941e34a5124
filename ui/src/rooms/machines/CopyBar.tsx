import { useState } from "react";
import { useNavigate } from "react-router";
import { useCopySheet } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { machines as words } from "../../words/machines";

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
      <Problem error={copy.error} />
    </form>
  );
}
