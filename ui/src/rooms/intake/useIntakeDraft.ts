import { useEffect, useRef, useState } from "react";
import { ApiError, type Intake, type NewIntake } from "../../api/client";
import { useKeepIntake } from "../../api/rooms";

const KEEP_AFTER_MS = 700;

export type Keeping = "kept" | "waiting" | "keeping" | "conflict" | "problem";
type Stored = { draft: NewIntake; base: number };

/** What is typed into the intake: kept by itself, never lost, and never written over somebody else's. */
export function useIntakeDraft(view: Intake) {
  const jobId = view.job.id;
  const key = `ohmcensus.intake.${jobId}`;
  const [stored, setStored] = useState<Stored>(
    () => read(key) ?? { draft: draftOf(view), base: view.intake_revision },
  );
  const [state, setState] = useState<Keeping>(() => (read(key) ? "waiting" : "kept"));
  const [problem, setProblem] = useState("");
  const [theirs, setTheirs] = useState<number | null>(null);
  const keep = useKeepIntake(jobId);
  const latest = useRef(stored);
  latest.current = stored;

  const change = (part: Partial<NewIntake>) => {
    const next = { ...latest.current, draft: { ...latest.current.draft, ...part } };
    latest.current = next;
    setStored(next);
    localStorage.setItem(key, JSON.stringify(next));
    setState("waiting");
  };
  const send = async (base: number) => {
    const sent = latest.current.draft;
    setState("keeping");
    try {
      const after = await keep.mutateAsync({ ...sent, intake_revision: base });
      setTheirs(null);
      setProblem("");
      const isSame = latest.current.draft === sent;
      const next = { draft: isSame ? draftOf(after) : latest.current.draft, base: after.intake_revision };
      latest.current = next;
      setStored(next);
      setState(isSame ? "kept" : "waiting");
      if (isSame) localStorage.removeItem(key);
    } catch (error) {
      const current = error instanceof ApiError ? error.problem?.revision : undefined;
      setTheirs(current ?? null);
      setState(typeof current === "number" ? "conflict" : "problem");
      setProblem((error as Error).message);
    }
  };
  const sendLatest = useRef(send);
  sendLatest.current = send;
  const { draft, base } = stored;
  // biome-ignore lint/correctness/useExhaustiveDependencies: every change of the draft starts the wait anew
  useEffect(() => {
    if (state !== "waiting") return;
    const timer = setTimeout(() => void sendLatest.current(base), KEEP_AFTER_MS);
    return () => clearTimeout(timer);
  }, [state, draft, base]);
  useEffect(() => {
    if (state === "kept" && view.intake_revision > latest.current.base)
      setStored({ draft: draftOf(view), base: view.intake_revision });
  }, [state, view]);

  return {
    draft,
    change,
    state,
    problem,
    differs: theirs === null ? [] : differences(draft, draftOf(view)),
    keepMine: () => void send(theirs ?? base),
    takeTheirs: () => {
      localStorage.removeItem(key);
      setStored({ draft: draftOf(view), base: view.intake_revision });
      setTheirs(null);
      setProblem("");
      setState("kept");
    },
  };
}

function draftOf(view: Intake): NewIntake {
  return {
    machine: view.job.machine,
    place: view.job.place,
    sheet: view.job.sheet,
    complaint: view.complaint,
    plate: view.plate,
  };
}

/** Names of what is not the same in both. */
function differences(mine: NewIntake, other: NewIntake): string[] {
  return (Object.keys(mine) as (keyof NewIntake)[]).filter(
    (name) => JSON.stringify(mine[name]) !== JSON.stringify(other[name]),
  );
}

function read(key: string): Stored | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as Stored | null;
  } catch {
    return null;
  }
}
