import { useEffect, useRef, useState } from "react";
import { ApiError } from "../../api/client";
import { type Raw, type SheetView, useDraftActs } from "../../api/sheets";

const KEEP_AFTER_MS = 600;

export type Keeping = "used" | "kept" | "waiting" | "keeping" | "conflict" | "problem";
type Stored = { raw: Raw; base: number };

/** A sheet as it is being changed: every change is kept by itself, whole or not, and outlives the window. */
export function useSheetDraft(view: SheetView) {
  const key = `ohmcensus.sheet.${view.id}`;
  const [stored, setStored] = useState<Stored>(() => read(key) ?? { raw: view.raw, base: view.revision });
  const [state, setState] = useState<Keeping>(() =>
    read(key) ? "waiting" : view.revision ? "kept" : "used",
  );
  const [problem, setProblem] = useState("");
  const [theirs, setTheirs] = useState<number | null>(null);
  const acts = useDraftActs(view.id);
  const latest = useRef(stored);

  const hold = (next: Stored) => {
    latest.current = next;
    setStored(next);
  };
  const change = (part: Raw) => {
    hold({ ...latest.current, raw: { ...latest.current.raw, ...part } });
    localStorage.setItem(key, JSON.stringify(latest.current));
    setState("waiting");
  };
  const keep = async (base: number) => {
    const sent = latest.current.raw;
    setState("keeping");
    try {
      const after = await acts.mutateAsync({ kind: "keep", raw: sent, revision: base });
      const isSame = latest.current.raw === sent;
      hold({ raw: isSame ? after.raw : latest.current.raw, base: after.revision });
      if (isSame) localStorage.removeItem(key);
      setTheirs(null);
      setState(isSame ? "kept" : "waiting");
    } catch (error) {
      const current = error instanceof ApiError ? error.problem?.revision : undefined;
      setTheirs(current ?? null);
      setState(typeof current === "number" ? "conflict" : "problem");
      setProblem((error as Error).message);
    }
  };
  /** Take what the server answers in the place of what is here. */
  const take = async (act: "use" | "drop") => {
    try {
      const after = await acts.mutateAsync(
        act === "use" ? { kind: act, revision: latest.current.base } : { kind: act },
      );
      localStorage.removeItem(key);
      hold({ raw: after.raw, base: after.revision });
      setTheirs(null);
      setState("used");
    } catch (error) {
      setState("problem");
      setProblem((error as Error).message);
    }
  };
  const takeTheirs = () => {
    localStorage.removeItem(key);
    globalThis.location.reload();
  };
  const keepLatest = useRef(keep);
  keepLatest.current = keep;
  const { raw, base } = stored;
  // biome-ignore lint/correctness/useExhaustiveDependencies: every change starts the wait anew
  useEffect(() => {
    if (state !== "waiting") return;
    const timer = setTimeout(() => void keepLatest.current(base), KEEP_AFTER_MS);
    return () => clearTimeout(timer);
  }, [state, raw, base]);
  const keepMine = () => void keep(theirs ?? base);
  return { raw, state, problem, change, take, keepMine, takeTheirs };
}

function read(key: string): Stored | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as Stored | null;
  } catch {
    return null;
  }
}
