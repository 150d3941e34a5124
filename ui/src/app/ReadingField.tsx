import { type FormEvent, useEffect, useRef, useState } from "react";
import { useLogReading } from "../api/trace";
import { reading as words } from "../words/frame";
import { Act } from "./controls/Act";
import { type Door, DoorAsked } from "./DoorAsked";
import { usePad } from "./Keypad";
import { soundReading } from "./sound";
import { WaysOn, waysOf } from "./WaysOn";

type Props = {
  jobId: string;
  /** Beginning of the line, up to the reading. */
  typed: string;
  label: string;
  placeholder?: string;
  autoFocus?: boolean;
  meter?: string | null;
  onLogged?: () => void;
  /** Whether the figure says nothing without how door or lid stands: that is asked first. */
  asksDoor?: boolean;
};

/** One reading of a named line; what is typed stays until it is stored. */
export function ReadingField(props: Props) {
  const { jobId, typed, label, placeholder, autoFocus, meter, onLogged, asksDoor = false } = props;
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const [door, setDoor] = useState<Door | null>(null);
  const log = useLogReading(jobId);
  const pad = usePad();
  const input = useRef<HTMLInputElement>(null);
  // The hand goes on to the next point of a series, also where its field was there before.
  useEffect(() => {
    if (autoFocus) input.current?.focus();
  }, [autoFocus]);
  const submit = async (event?: FormEvent, more: Record<string, unknown> = {}) => {
    event?.preventDefault();
    if (log.isPending || !text.trim()) return;
    if (asksDoor && door === null) return setProblem(words.doorFirst);
    const says = { door, step: null };
    try {
      soundReading(await log.mutateAsync({ text: `${typed}${text}`, meter: meter ?? null, says, ...more }));
      setText("");
      setProblem("");
      onLogged?.();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form className="reading-field" onSubmit={(event) => void submit(event)}>
      {asksDoor && <DoorAsked door={door} onSay={setDoor} />}
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
      {problem && (
        <WaysOn jobId={jobId} acts={waysOf(log.error)} again={(more) => void submit(undefined, more)} />
      )}
    </form>
  );
}
