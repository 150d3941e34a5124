import { useEffect, useRef } from "react";
import { useLocation } from "react-router";
import { PHONE } from "./phone";
import { moveUnpressed } from "./unpressed";

/** Goes along with a link to the next step: the room then opens at it. */
export const AS_NEXT = { isNext: true };

/** Whether this room was reached by the way of the next step. */
export function useIsNext(): boolean {
  return (useLocation().state as { isNext?: boolean } | null)?.isNext ?? false;
}

/**
 * Bring the step that is due into view, and its field under the hand: on a phone only one for figures, and none where
 * the machine does not stand so that it could be typed. Where nothing is due the hand is free.
 */
export function bringUp() {
  moveUnpressed(toDue);
}

function toDue() {
  const due = document.querySelector<HTMLElement>('main [aria-current="step"]');
  if (!due) return (document.activeElement as HTMLElement | null)?.blur();
  due.scrollIntoView({ block: "nearest" });
  if (due.dataset.stands === "false") return;
  const field = due.querySelector<HTMLElement>("input[type=text], input:not([type])");
  const isFigure = field?.dataset.pad !== undefined;
  if (isFigure || !window.matchMedia(PHONE).matches) field?.focus({ preventScroll: true });
}

/** A room that was reached by the way of the next step opens at it, once it is there. */
export function useUnderHand(isThere: boolean) {
  const isNext = useIsNext();
  const { key } = useLocation();
  useEffect(() => {
    if (isNext && isThere && key) bringUp();
  }, [isNext, isThere, key]);
}

/** The hand goes on to what is due next as soon as that is another: not on arrival, when it was not known before. */
export function useFollow(due: string | undefined) {
  const before = useRef(due);
  useEffect(() => {
    if (before.current !== undefined && before.current !== due) bringUp();
    before.current = due;
  }, [due]);
}
