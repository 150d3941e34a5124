import { Checkbox } from "@mantine/core";
import { IconArrowBackUp, IconArrowForwardUp, IconPointerDown } from "@tabler/icons-react";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { Sequence } from "../../api/client";
import { coach as words } from "../../words/codes";
import { sounded } from "./sounded";
import type { useAttempt } from "./useAttempt";

const WORDS = { right: words.right, left: words.left, press: words.push };
const ICONS = { right: IconArrowForwardUp, left: IconArrowBackUp, press: IconPointerDown };
const KEYS: Record<string, Sequence["clicks"][number]> = {
  ArrowRight: "right",
  ArrowLeft: "left",
  Enter: "press",
};

/** The row of clicks with the one that is due, the pads to tap, and what is left of the window. */
export function Beat({ sequence, attempt }: { sequence: Sequence; attempt: ReturnType<typeof useAttempt> }) {
  const [isAloud, setIsAloud] = useState(true);
  const { state, firstAt } = attempt;
  const isRunning = firstAt !== null && state !== null && !state.is_over;
  const { beat, left } = useBeat(isRunning ? firstAt : null, sequence);
  useEffect(() => {
    if (isRunning && isAloud && beat > 0) sounded(beat < sequence.clicks.length);
  }, [beat, isRunning, isAloud, sequence.clicks.length]);
  const counted = state?.counted ?? 0;
  const press = (event: KeyboardEvent) => {
    const direction = KEYS[event.key];
    if (!direction || event.repeat) return;
    event.preventDefault();
    attempt.click(direction);
  };
  const directions = [...new Set(sequence.clicks)];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the pads inside are the controls, the keys a second way to them
    <div className="beat" onKeyDown={press}>
      <ol className="beat-row" aria-label={words.attempt(attempt.number)}>
        {sequence.clicks.map((direction, index) => {
          const Icon = ICONS[direction];
          const is = index < counted ? "made" : index === counted ? "due" : "";
          return (
            <li key={index} className={`${is} ${isRunning && beat === index ? "on-beat" : ""}`}>
              <Icon size={26} aria-hidden />
              {WORDS[direction]}
            </li>
          );
        })}
      </ol>
      <div className="beat-window">
        <span style={{ width: `${(left / sequence.window_s) * 100}%` }} />
        <b className="mono">
          {left.toFixed(1)} s {words.left_s}
        </b>
      </div>
      <div className="row">
        {directions.map((direction) => {
          const Icon = ICONS[direction];
          return (
            <button
              type="button"
              key={direction}
              className="pad"
              disabled={state?.is_over ?? true}
              onPointerDown={(event) => {
                event.preventDefault();
                event.currentTarget.focus();
                attempt.click(direction);
              }}
              onClick={(event) => event.detail === 0 && attempt.click(direction)}
            >
              <Icon size={26} aria-hidden />
              {WORDS[direction]}
            </button>
          );
        })}
        <Checkbox
          label={words.sound}
          checked={isAloud}
          onChange={(event) => setIsAloud(event.currentTarget.checked)}
        />
      </div>
      <p className="quiet none">{words.press}</p>
    </div>
  );
}

/** Number of the beat since the first click, and seconds left of the window, on the steady clock. */
function useBeat(firstAt: number | null, sequence: Sequence): { beat: number; left: number } {
  const [now, setNow] = useState(0);
  const frame = useRef(0);
  useEffect(() => {
    if (firstAt === null) return;
    const tick = () => {
      setNow(performance.now());
      frame.current = requestAnimationFrame(tick);
    };
    frame.current = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame.current);
  }, [firstAt]);
  if (firstAt === null) return { beat: 0, left: sequence.window_s };
  const gone = Math.max(0, now - firstAt) / 1000;
  return { beat: Math.floor(gone / sequence.beat_s), left: Math.max(0, sequence.window_s - gone) };
}
