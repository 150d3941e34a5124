import { type RefObject, useEffect, useRef } from "react";
import type { Trace } from "../../api/client";
import { isTyping } from "../../app/useGoKeys";
import type { QuickLineHandle } from "./QuickLine";
import type { Dialog } from "./TraceRoom";

type Doing = {
  trace: Trace;
  suggested: string | null;
  chosen: string | null;
  setChosen: (key: string) => void;
  take: (key: string) => void;
  correct: () => void;
  undo: () => Promise<void>;
  setDialog: (dialog: Dialog) => void;
  turn: () => void;
  quickLine: RefObject<QuickLineHandle | null>;
};

/** The single keys of the trace screen; they rest while a field or a dialog has the keyboard. */
export function useTraceKeys(doing: Doing) {
  const latest = useRef(doing);
  latest.current = doing;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const { trace, suggested, chosen, take, correct, undo, setDialog, quickLine, setChosen } =
        latest.current;
      const step = { j: 1, k: -1 }[event.key];
      if (step) setChosen(neighbour(trace, chosen, step));
      else if (event.key === "/") quickLine.current?.focus();
      else if (event.key === "n" && suggested) take(suggested);
      else if (event.key === "c") correct();
      else if (event.key === "r") latest.current.turn();
      else if (event.key === "u") void undo();
      else if (event.key === "l") setDialog("live");
      else if (event.key === "e") document.getElementById("evidence")?.focus();
      else if (event.key === "?") setDialog("keys");
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
}

function neighbour(trace: Trace, chosen: string | null, step: number): string {
  const at = trace.lines.findIndex((line) => line.key === chosen);
  const next = at < 0 ? 0 : Math.min(trace.lines.length - 1, Math.max(0, at + step));
  return trace.lines[next]?.key ?? "";
}
