import { useState } from "react";
import type { Line } from "../../api/client";
import { useWriteNote } from "../../api/hooks";
import { line as words } from "../../words/trace";

/** The note on a line; what is typed stays here until it is kept, over reloads too. */
export function LineNote({ jobId, line }: { jobId: string; line: Line }) {
  const key = `ohmcensus.note.${jobId}.${line.key}`;
  const [text, setText] = useState(() => localStorage.getItem(key) ?? line.note);
  const write = useWriteNote(jobId);
  const type = (typed: string) => {
    setText(typed);
    localStorage.setItem(key, typed);
  };
  const keep = () =>
    write.mutate({ line: line.key, text }, { onSuccess: () => localStorage.removeItem(key) });
  return (
    <div className="note">
      <label htmlFor="line-note" className="quiet">
        {words.note}
      </label>
      <textarea
        id="line-note"
        rows={2}
        value={text}
        maxLength={1000}
        placeholder={words.notePlaceholder}
        onChange={(event) => type(event.currentTarget.value)}
      />
      {text.trim() !== line.note && (
        <button type="button" className="plain bordered" onClick={keep} disabled={write.isPending}>
          {words.keepNote}
        </button>
      )}
      {write.error && <p className="problem">{write.error.message}</p>}
    </div>
  );
}
