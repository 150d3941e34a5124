/** So long after a press its click has come, by mouse and by finger. */
const CLICKED_MS = 60;

let isPressed = false;
let waiting: (() => void)[] = [];
let timer: ReturnType<typeof setTimeout>;

/**
 * Do what moves the page: at once, or after the press that is under way, so that its click meets what was pressed.
 * Once the finger moves the page itself, what waited is given up.
 */
export function unpressed(act: () => void) {
  if (isPressed) waiting.push(act);
  else act();
}

function release(acts: (() => void)[]) {
  isPressed = false;
  waiting = [];
  for (const act of acts) act();
}

document.addEventListener(
  "pointerdown",
  () => {
    clearTimeout(timer);
    isPressed = true;
  },
  true,
);
document.addEventListener(
  "pointerup",
  () => {
    timer = setTimeout(() => release(waiting), CLICKED_MS);
  },
  true,
);
document.addEventListener("pointercancel", () => release([]), true);
