import { useEffect, useRef, useState } from "react";
import { ApiError } from "../api/client";
import { readKept } from "./useForm";

export type Keeping = "kept" | "waiting" | "keeping" | "conflict" | "problem";
export type Held<T> = { draft: T; base: number };

type Options<T> = {
  /** Where it outlives the window. */
  key: string;
  start: Held<T>;
  /** Send a draft on top of a revision; answers with what is then stored. */
  send: (draft: T, base: number) => Promise<Held<T>>;
  afterMs: number;
};

/** What is being typed: kept by itself, never lost, and never written over somebody else's. */
export function useKeptDraft<T>({ key, start, send, afterMs }: Options<T>) {
  const [held, setHeld] = useState<Held<T>>(() => readKept<Held<T>>(key) ?? start);
  const [state, setState] = useState<Keeping>(() => (readKept<Held<T>>(key) ? "waiting" : "kept"));
  const [problem, setProblem] = useState("");
  const [theirs, setTheirs] = useState<number | null>(null);
  const latest = useRef(held);

  const hold = (next: Held<T>) => {
    latest.current = next;
    setHeld(next);
  };
  const change = (next: (draft: T) => T) => {
    hold({ ...latest.current, draft: next(latest.current.draft) });
    localStorage.setItem(key, JSON.stringify(latest.current));
    setState("waiting");
  };
  /** Take what is stored in the place of what is here. */
  const reset = (stored: Held<T>) => {
    localStorage.removeItem(key);
    hold(stored);
    setTheirs(null);
    setProblem("");
    setState("kept");
  };
  const keep = async (base: number) => {
    const sent = latest.current.draft;
    setState("keeping");
    try {
      const after = await send(sent, base);
      if (latest.current.draft === sent) return reset(after);
      hold({ draft: latest.current.draft, base: after.base });
      setTheirs(null);
      setProblem("");
      setState("waiting");
    } catch (error) {
      const current = error instanceof ApiError ? error.problem?.revision : undefined;
      setTheirs(current ?? null);
      setState(typeof current === "number" ? "conflict" : "problem");
      setProblem((error as Error).message);
    }
  };
  const keepLatest = useRef(keep);
  keepLatest.current = keep;
  const { draft, base } = held;
  // biome-ignore lint/correctness/useExhaustiveDependencies: every change of the draft starts the wait anew
  useEffect(() => {
    if (state !== "waiting") return;
    const timer = setTimeout(() => void keepLatest.current(base), afterMs);
    return () => clearTimeout(timer);
  }, [state, draft, base]);
  /** Somebody else wrote it while nothing was being changed here. */
  const follow = (stored: Held<T>) => {
    if (state === "kept" && stored.base > latest.current.base) hold(stored);
  };
  const fail = (error: Error) => {
    setState("problem");
    setProblem(error.message);
  };
  return {
    draft,
    base,
    state,
    problem,
    isStale: theirs !== null,
    change,
    reset,
    follow,
    fail,
    keepMine: () => void keep(theirs ?? base),
  };
}
