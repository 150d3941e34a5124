/** So long after a press its click has come, by mouse and by finger. */
const CLICKED_MS = 60;
/** A finger that rests for longer holds nothing up. */
const LONGEST_MS = 1_000;

let isPressed = false;
let waiting: { act: () => void; isMove: boolean }[] = [];
let timer: ReturnType<typeof setTimeout>;

/** Do what changes the page: at once, or after the press that is under way, so that its click meets what was pressed. */
export function unpressed(act: () => void) {
  wait(act, false);
}

/** The same for what scrolls, or takes the focus: given up where the finger moves the page itself. */
export function moveUnpressed(act: () => void) {
  wait(act, true);
}

function wait(act: () => void, isMove: boolean) {
  if (isPressed) waiting.push({ act, isMove });
  else act();
}

function release(isMoved: boolean) {
  const due = waiting;
  isPressed = false;
  waiting = [];
  for (const { act, isMove } of due) if (!(isMoved && isMove)) act();
}

/** Let go of what waited in so many milliseconds from now. */
function releaseIn(milliseconds: number) {
  clearTimeout(timer);
  timer = setTimeout(() => release(false), milliseconds);
}

document.addEventListener(
  "pointerdown",
  (event) => {
    isPressed ||= event.button === 0;
    releaseIn(LONGEST_MS);
  },
  true,
);
document.addEventListener("pointerup", () => releaseIn(CLICKED_MS), true);
document.addEventListener("click", () => releaseIn(0), true);
document.addEventListener(
  "pointercancel",
  () => {
    clearTimeout(timer);
    release(true);
  },
  true,
);
