import { useEffect, useState } from "react";

/** Counts the settle time down on the steady clock, whatever happens to the clock of the day. */
export function useSettle(seconds: number) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setNow(performance.now()), 250);
    return () => clearInterval(timer);
  }, [startedAt]);
  const gone = startedAt === null ? Number.POSITIVE_INFINITY : (Math.max(now, startedAt) - startedAt) / 1000;
  return {
    left: Math.max(0, Math.ceil(seconds - gone)),
    start: () => {
      setNow(performance.now());
      setStartedAt(performance.now());
    },
    skip: () => setStartedAt(null),
  };
}
