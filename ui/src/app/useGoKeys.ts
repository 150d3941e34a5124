import { useEffect, useRef } from "react";
import { useNavigate } from "react-router";
import { STAGES } from "./stages";

const GO_WITHIN_MS = 1500;

/** g and then a stage's number, j for the jobs, m for machines, h for the shelf, s for setup; it rests while a field or a dialog has the keyboard. */
export function useGoKeys(jobId: string | null) {
  const navigate = useNavigate();
  const wentAt = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const isGoing = event.timeStamp - wentAt.current < GO_WITHIN_MS;
      wentAt.current = event.key === "g" && !isGoing ? event.timeStamp : Number.NEGATIVE_INFINITY;
      if (!isGoing) return;
      const stage = STAGES.find((s) => s.key === event.key);
      const to =
        stage && jobId
          ? `/jobs/${jobId}/${stage.id}`
          : { j: "/jobs", m: "/machines", h: "/shelf", s: "/setup" }[event.key];
      if (!to) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      void navigate(to);
    };
    window.addEventListener("keydown", press, { capture: true });
    return () => window.removeEventListener("keydown", press, { capture: true });
  }, [navigate, jobId]);
}

export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.closest("input:not([type=checkbox]), textarea, select, [role=dialog]") !== null;
}
