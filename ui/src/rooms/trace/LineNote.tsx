import type { Line } from "../../api/client";
import { useWriteNote } from "../../api/trace";
import { Act } from "../../app/controls/Act";
import { useForm } from "../../app/useForm";
import { line as words } from "../../words/trace";

/** The note on a line; what is typed stays here until it is kept, over reloads too. */
export function LineNote({ jobId, line }: { jobId: string; line: Line }) {
  const key = `ohmcensus.lineNote.${jobId}.${line.key}`;
  const [text, setText, forget] = useForm(key, line.note);
  const write = useWriteNote(jobId);
  const keep = () => write.mutate({ line: line.key, text }, { onSuccess: () => forget(text) });
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
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {text.trim() !== line.note && (
        <Act look="plain" onClick={keep} disabled={write.isPending}>
          {words.keepNote}
        </Act>
      )}
      {write.error && <p className="problem">{write.error.message}</p>}
    </div>
  );
}
