import {
  type FormEvent,
  type KeyboardEvent,
  type Ref,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
} from "react";
import { ApiError, type Line, type Preview, type Trace, type WayOn } from "../../api/client";
import { previewLine, useLogReading } from "../../api/trace";
import { useAsk } from "../../api/useAsk";
import { Act } from "../../app/controls/Act";
import { type Door, DoorAsked } from "../../app/DoorAsked";
import { usePad } from "../../app/Keypad";
import { usePhone } from "../../app/phone";
import { soundReading } from "../../app/sound";
import { unpressed } from "../../app/unpressed";
import { useForm } from "../../app/useForm";
import { WaysOn, waysOf } from "../../app/WaysOn";
import { reading } from "../../words/frame";
import { quick } from "../../words/trace";
import { Answer } from "./Answer";

export type QuickLineHandle = { focus: () => void; begin: (text: string, whole?: boolean) => void };
export type Correction = { readingId: string; reads: string };

type Props = {
  ref: Ref<QuickLineHandle>;
  jobId: string;
  trace: Trace;
  preview: Preview | null;
  onPreview: (preview: Preview | null) => void;
  /** The line in question: a bare reading belongs to it. */
  line: Line | null;
  isChosen: boolean;
  correction: Correction | null;
  onCorrected: () => void;
  onLogged: (line: string | null) => void;
  /** Takes back what was just logged; null where nothing was. */
  onUndo: (() => void) | null;
  said: string;
  onSaid: (said: string) => void;
};

/** One field for everything: it says live what it understood, and loses nothing that was typed. */
export function QuickLine(props: Props) {
  const { ref, jobId, trace, preview, onPreview, correction, onCorrected, onLogged, onUndo, said, onSaid } =
    props;
  const pinned = useRef<Line | null | undefined>(undefined);
  const sending = useRef<{ text: string; isFollowed: boolean } | null>(null);
  const [text, setText] = useForm(`ohmcensus.line.${jobId}`, "");
  const [meter, setMeter] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const [acts, setActs] = useState<WayOn[]>([]);
  const [door, setDoor] = useState<Door | null>(null);
  const pad = usePad();
  const isPhone = usePhone();
  const input = useRef<HTMLInputElement>(null);
  const log = useLogReading(jobId);
  // What a figure belongs to is settled with its first sign, or by choosing: it never moves under the hand that types.
  if (text.trim() === "" || props.isChosen || pinned.current === undefined) pinned.current = props.line;
  const line = pinned.current;
  const key = line?.key ?? "";
  const says = { door, step: null };
  const { answer: understood } = useAsk(
    text.trim() ? [trace.job.revision, text, meter, key, door] : null,
    (signal) => previewLine(jobId, { text, meter, line: key, says }, signal),
  );
  const asksDoor = text.trim() ? (preview?.asks_door ?? false) || door !== null : (line?.asks_door ?? false);
  useEffect(() => unpressed(() => onPreview(understood)), [understood, onPreview]);

  const type = (typed: string) => {
    setText(typed);
    setProblem("");
    setActs([]);
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

  const submit = async (event?: FormEvent, more: Record<string, unknown> = {}) => {
    event?.preventDefault();
    if (sending.current) {
      sending.current.isFollowed = text.trim() !== "" && text !== sending.current.text;
      return;
    }
    if (preview?.asks_door && door === null) return setProblem(reading.doorFirst);
    const mine = { text, isFollowed: false };
    sending.current = mine;
    let next: typeof more;
    const body = {
      text,
      line: key,
      meter,
      says,
      ...more,
      ...(correction ? { supersedes: correction.readingId } : {}),
    };
    try {
      const after = await log.mutateAsync(body);
      soundReading(after);
      const written = after.lines.find((row) => row.reading_id === after.last_reading);
      if (input.current?.value === text) type("");
      setDoor(null);
      pinned.current = undefined;
      next = { line: "" };
      onCorrected();
      onLogged(written?.key ?? null);
      onSaid(
        written
          ? `${written.part_title}, ${written.title}: ${written.reads}, ${written.sentence}`
          : quick.logged,
      );
    } catch (error) {
      setProblem(error instanceof ApiError ? error.message : String(error));
      setActs(waysOf(error as Error));
      next = {};
    }
    sending.current = null;
    if (mine.isFollowed) void latest.current(undefined, next);
  };
  // Enter on the next reading, while the one before is under way, is kept until that has its answer. Where it was
  // logged the line in question has moved on unseen: only a reading that names its part goes there by itself.
  const latest = useRef(submit);
  latest.current = submit;
  const press = (event: KeyboardEvent) => {
    const offer = preview?.completions?.[0];
    if (event.key === "Escape") input.current?.blur();
    if (event.key === "Tab" && !event.shiftKey && offer && offer.trim() !== text.trim()) {
      event.preventDefault();
      type(offer);
    }
  };

  const ways = problem ? acts : (preview?.acts ?? []);
  const refused = ways.length > 0 && (
    <WaysOn jobId={jobId} acts={ways} again={(more) => void submit(undefined, more)} />
  );
  const hasRefusal = isPhone && problem !== "" && ways.length > 0;
  return (
    <form className={text ? "bar has-text" : "bar"} onSubmit={submit}>
      <div className="bar-entry">
        {correction && (
          <div className="correcting">
            {quick.correcting} <span className="mono">{correction.reads}</span>
            <Act
              look="bare"
              onClick={() => {
                onCorrected();
                type("");
              }}
            >
              {quick.stopCorrecting}
            </Act>
          </div>
        )}
        {asksDoor && <DoorAsked door={door} onSay={setDoor} />}
        <input
          ref={input}
          type="text"
          aria-label={quick.label}
          placeholder={trace.job.ended !== null ? quick.over : line ? quick.reading : quick.placeholder}
          value={text}
          onChange={(event) => type(event.currentTarget.value)}
          onKeyDown={press}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          {...pad}
          data-pad={hasRefusal ? "off" : ""}
        />
      </div>
      <Answer
        text={text}
        preview={preview}
        problem={problem}
        said={said}
        line={correction ? null : line}
        isSaving={log.isPending}
        onUndo={onUndo}
        refused={!isPhone && refused}
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
      {hasRefusal && refused}
    </form>
  );
}
