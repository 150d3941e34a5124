import { useEffect, useRef, useState } from "react";

/** So long after the last key it is asked. */
const AFTER_MS = 60;

type Asked<T> = { answer: T | null; problem: string };

/** Ask while something is typed: a little after the last key; an older question is given up, and its answer never shown. */
export function useAsk<T>(question: unknown[] | null, ask: (signal: AbortSignal) => Promise<T>): Asked<T> {
  const [asked, setAsked] = useState<Asked<T>>({ answer: null, problem: "" });
  const latest = useRef(ask);
  latest.current = ask;
  const key = question && JSON.stringify(question);
  useEffect(() => {
    if (key === null) {
      setAsked({ answer: null, problem: "" });
      return;
    }
    const abort = new AbortController();
    const timer = setTimeout(() => {
      latest.current(abort.signal).then(
        (answer) => !abort.signal.aborted && setAsked({ answer, problem: "" }),
        (error: Error) => !abort.signal.aborted && setAsked({ answer: null, problem: error.message }),
      );
    }, AFTER_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [key]);
  return asked;
}
