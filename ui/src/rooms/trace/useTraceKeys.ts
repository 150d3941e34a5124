import { type RefObject, useEffect, useRef } from "react";
import { useNavigate } from "react-router";
import type { Trace } from "../../api/client";
import type { QuickLineHandle } from "./QuickLine";
import type { Dialog } from "./TraceRoom";

type Doing = {
  trace: Trace;
  chosen: string | null;
  setChosen: (key: string) => void;
  take: (key: string) => void;
  correct: () => void;
  undo: () => Promise<void>;
  setDialog: (dialog: Dialog) => void;
  quickLine: RefObject<QuickLineHandle | null>;
};

const TRACE_STAGE = "4";
const GO_WITHIN_MS = 1500;

/** The single keys of the trace screen; they rest while a field or a dialog has the keyboard. */
export function useTraceKeys(doing: Doing) {
  const navigate = useNavigate();
  const wentAt = useRef(Number.NEGATIVE_INFINITY);
  const latest = useRef(doing);
  latest.current = doing;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isBusy(event.target)) return;
      const { trace, chosen, take, correct, undo, setDialog, quickLine, setChosen } = latest.current;
      const isGoing = event.timeStamp - wentAt.current < GO_WITHIN_MS;
      wentAt.current = Number.NEGATIVE_INFINITY;
      if (isGoing) {
        const to = { j: "/jobs", s: "/setup", [TRACE_STAGE]: null }[event.key];
        if (to) void navigate(to);
        if (to !== undefined) event.preventDefault();
        return;
      }
      const step = { j: 1, k: -1 }[event.key];
      if (step) setChosen(neighbour(trace, chosen, step));
      else if (event.key === "/") quickLine.current?.focus();
      else if (event.key === "n" && trace.next_line) take(trace.next_line);
      else if (event.key === "c") correct();
      else if (event.key === "u") void undo();
      else if (event.key === "l") setDialog("safety");
      else if (event.key === "e") document.getElementById("evidence")?.focus();
      else if (event.key === "?") setDialog("keys");
      else if (event.key === "g") wentAt.current = event.timeStamp;
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [navigate]);
}

function isBusy(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.closest("input, textarea, select, [role=dialog]") !== null;
}

function neighbour(trace: Trace, chosen: string | null, step: number): string {
  const at = trace.lines.findIndex((line) => line.key === chosen);
  const next = at < 0 ? 0 : Math.min(trace.lines.length - 1, Math.max(0, at + step));
  return trace.lines[next]?.key ?? "";
}
