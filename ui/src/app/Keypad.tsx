import { IconBackspace, IconKeyboard, IconSpace } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { keypad as words } from "../words/frame";
import { usePhone } from "./phone";
import { moveUnpressed, unpressed } from "./unpressed";
import "./keypad.css";

const SIGNS = ["7", "8", "9", "k", "M", "OL", "4", "5", "6", "µ", "m", ">", "1", "2", "3", ".", " ", "<"];
/** So long after a field was left the keys stay: the tap that left it finds its button where it was. */
const STAYS_MS = 300;
/** Where the field itself is gone there is no such tap: only so long that the next field can take its place. */
const GONE_MS = 60;

/** What makes a field one for the keypad: it brings up ours where there is one, and no other. */
export function usePad(): { "data-pad": ""; inputMode: "none" | "text" } {
  return { "data-pad": "", inputMode: usePhone() ? "none" : "text" };
}

/** One keypad for every field that takes a figure, for a thumb; it types where the focus is. */
export function Keypad() {
  const [field, setField] = useState<HTMLInputElement | null>(null);
  const isPhone = usePhone();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const look = () => setField(padded(document.activeElement));
    const come = () => {
      clearTimeout(timer);
      look();
    };
    const leave = () => {
      timer = setTimeout(() => unpressed(look), STAYS_MS);
    };
    document.addEventListener("focusin", come);
    document.addEventListener("focusout", leave);
    return () => {
      clearTimeout(timer);
      document.removeEventListener("focusin", come);
      document.removeEventListener("focusout", leave);
    };
  }, []);
  useEffect(() => {
    if (!field) return;
    moveUnpressed(() => field.scrollIntoView({ block: "nearest" }));
    let timer: ReturnType<typeof setTimeout>;
    const watch = new MutationObserver(() => {
      if (field.isConnected) return;
      watch.disconnect();
      timer = setTimeout(() => setField(padded(document.activeElement)), GONE_MS);
    });
    watch.observe(document.body, { childList: true, subtree: true });
    return () => {
      clearTimeout(timer);
      watch.disconnect();
    };
  }, [field]);
  if (!isPhone || !field || field.dataset.pad === "off") return null;
  return (
    <section className="keypad" aria-label={words.title} onMouseDown={(event) => event.preventDefault()}>
      {SIGNS.map((sign) => (
        <Key key={sign} sign={sign} onPress={() => type(field, field.value + sign)} />
      ))}
      <Key sign="0" onPress={() => type(field, `${field.value}0`)} />
      <button type="button" onClick={() => type(field, field.value.slice(0, -1))} aria-label={words.erase}>
        <IconBackspace size={22} aria-hidden />
      </button>
      <button type="button" onClick={() => letters(field)} aria-label={words.keyboard}>
        <IconKeyboard size={22} aria-hidden />
      </button>
      <Key sign="at" onPress={() => type(field, `${field.value} at `)} />
      <button type="button" className="enter" onClick={() => field.form?.requestSubmit()}>
        {words.enter}
      </button>
    </section>
  );
}

function Key({ sign, onPress }: { sign: string; onPress: () => void }) {
  return (
    <button type="button" onClick={onPress} aria-label={sign === " " ? words.space : sign}>
      {sign === " " ? <IconSpace size={20} aria-hidden /> : sign}
    </button>
  );
}

function padded(element: Element | null): HTMLInputElement | null {
  return element instanceof HTMLInputElement && element.dataset.pad !== undefined ? element : null;
}

const setValue = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;

/** Type as a person does: whoever holds the field's text hears of it. */
function type(field: HTMLInputElement, text: string) {
  setValue?.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

/** The phone's own letters, until the field is left. */
function letters(field: HTMLInputElement) {
  field.inputMode = "text";
  field.blur();
  field.addEventListener(
    "blur",
    () => {
      field.inputMode = "none";
    },
    { once: true },
  );
  field.focus();
}
