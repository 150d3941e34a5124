import { type FormEvent, useEffect, useRef, useState } from "react";
import { useLogReading } from "../api/trace";
import { reading as words } from "../words/frame";
import { Act } from "./controls/Act";
import { usePad } from "./Keypad";
import { soundReading } from "./sound";

type Props = {
  jobId: string;
  /** Beginning of the line, up to the reading. */
  typed: string;
  label: string;
  placeholder?: string;
  autoFocus?: boolean;
  meter?: string | null;
  onLogged?: () => void;
};

/** One reading of a named line; what is typed stays until it is stored. */
export function ReadingField({ jobId, typed, label, placeholder, autoFocus, meter, onLogged }: Props) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const log = useLogReading(jobId);
  const pad = usePad();
  const input = useRef<HTMLInputElement>(null);
  // The hand goes on to the next point of a series, also where its field was there before.
  useEffect(() => {
    if (autoFocus) input.current?.focus();
  }, [autoFocus]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (log.isPending || !text.trim()) return;
    try {
      soundReading(await log.mutateAsync({ text: `${typed}${text}`, meter: meter ?? null }));
      setText("");
      setProblem("");
      onLogged?.();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form className="reading-field" onSubmit={(event) => void submit(event)}>
      <input
        ref={input}
        type="text"
        aria-label={label}
        placeholder={placeholder ?? words.reads}
        value={text}
        onChange={(event) => {
          setText(event.currentTarget.value);
          setProblem("");
        }}
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        {...pad}
      />
      <Act type="submit" disabled={log.isPending || !text.trim()}>
        {words.log}
      </Act>
      {problem && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
    </form>
  );
}
