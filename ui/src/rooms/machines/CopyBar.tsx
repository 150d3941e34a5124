import { useState } from "react";
import { useNavigate } from "react-router";
import { useCopySheet } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
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
    <Card
      as="form"
      className="sheet-bar"
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
      <Act type="submit" disabled={!name.trim() || copy.isPending}>
        {words.copy}
      </Act>
      <Problem error={copy.error} />
    </Card>
  );
}
