import {
  type FormEvent,
  type KeyboardEvent,
  type Ref,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
} from "react";
import { ApiError, type Preview, type Trace } from "../../api/client";
import { previewLine, useLogReading } from "../../api/hooks";
import { useAsk } from "../../api/useAsk";
import { useForm } from "../../app/useForm";
import { quick } from "../../words/trace";
import { Answer } from "./Answer";
import { Keypad } from "./Keypad";

export type QuickLineHandle = { focus: () => void; begin: (text: string, whole?: boolean) => void };
export type Correction = { readingId: string; reads: string };

type Props = {
  ref: Ref<QuickLineHandle>;
  jobId: string;
  trace: Trace;
  preview: Preview | null;
  onPreview: (preview: Preview | null) => void;
  correction: Correction | null;
  onCorrected: () => void;
  onLogged: (line: string) => void;
  said: string;
  onSaid: (said: string) => void;
};

/** One field for everything: it says live what it understood, and loses nothing that was typed. */
export function QuickLine(props: Props) {
  const { ref, jobId, trace, preview, onPreview, correction, onCorrected, onLogged, said, onSaid } = props;
  const [text, setText] = useForm(`ohmcensus.line.${jobId}`, "");
  const [meter, setMeter] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const [hasKeypad, setHasKeypad] = useState(true);
  const input = useRef<HTMLInputElement>(null);
  const log = useLogReading(jobId);
  const { answer: understood } = useAsk(text.trim() ? [trace.job.revision, text, meter] : null, (signal) =>
    previewLine(jobId, { text, meter }, signal),
  );
  useEffect(() => onPreview(understood), [understood, onPreview]);

  const type = (typed: string) => {
    setText(typed);
    setProblem("");
    onSaid("");
  };
  useEffect(() => {
    if (text && document.activeElement === document.body) input.current?.focus();
  }, [text]);
  useImperativeHandle(ref, () => ({
    focus: () => input.current?.focus(),
    begin: (typed, whole = false) => {
      type(whole ? typed : `${typed} `);
      input.current?.focus();
    },
  }));

  const submit = async (event?: FormEvent, override = "") => {
    event?.preventDefault();
    if (log.isPending) return;
    const body = {
      text,
      meter,
      ...(override ? { override } : {}),
      ...(correction ? { supersedes: correction.readingId } : {}),
    };
    try {
      const after = await log.mutateAsync(body);
      const written = after.lines.length === 1 ? after.lines[0] : undefined;
      type("");
      onCorrected();
      onLogged(written?.key ?? "");
      onSaid(
        written
          ? `${written.part_title}, ${written.title}: ${written.reads}, ${written.sentence}`
          : quick.logged,
      );
    } catch (error) {
      setProblem(error instanceof ApiError ? error.message : String(error));
    }
  };
  const press = (event: KeyboardEvent) => {
    const offer = preview?.completions?.[0];
    if (event.key === "Escape") input.current?.blur();
    if (event.key === "Tab" && !event.shiftKey && offer && offer.trim() !== text.trim()) {
      event.preventDefault();
      type(offer);
    }
  };

  return (
    <form className={text ? "bar has-text" : "bar"} onSubmit={submit}>
      <div className="bar-entry">
        {correction && (
          <div className="correcting">
            {quick.correcting} <span className="mono">{correction.reads}</span>
            <button
              type="button"
              className="plain"
              onClick={() => {
                onCorrected();
                type("");
              }}
            >
              {quick.stopCorrecting}
            </button>
          </div>
        )}
        <input
          ref={input}
          type="text"
          aria-label={quick.label}
          placeholder={quick.placeholder}
          value={text}
          onChange={(event) => type(event.currentTarget.value)}
          onKeyDown={press}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          inputMode={hasKeypad && window.matchMedia("(max-width: 760px)").matches ? "none" : "text"}
        />
      </div>
      <Answer
        jobId={jobId}
        text={text}
        preview={preview}
        problem={problem}
        said={said}
        isSaving={log.isPending}
        onOverride={(reason) => void submit(undefined, reason)}
        onOffer={(offer) => {
          type(offer);
          input.current?.focus();
        }}
      />
      <div className="choose">
        <select
          className="pick"
          aria-label={quick.meter}
          value={meter ?? ""}
          onChange={(event) => setMeter(event.currentTarget.value || null)}
        >
          <option value="">{quick.anyMeter}</option>
          {trace.meters.map((m) => (
            <option key={m.id} value={m.id}>
              {m.title}
            </option>
          ))}
        </select>
        <span className="keys">{quick.keys}</span>
      </div>
      <Keypad
        onSign={(sign) => type(text + sign)}
        onErase={() => type(text.slice(0, -1))}
        onEnter={() => void submit()}
        onKeyboard={() => {
          setHasKeypad(!hasKeypad);
          input.current?.blur();
          setTimeout(() => input.current?.focus(), 0);
        }}
      />
    </form>
  );
}
