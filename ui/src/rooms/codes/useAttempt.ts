import { useEffect, useRef, useState } from "react";
import type { Attempt, Click } from "../../api/client";
import { followClicks } from "../../api/codes";

/** One attempt at a sequence: clicks timed on the steady clock, judged by the server after each. */
export function useAttempt(jobId: string, sequenceId: string) {
  const [state, setState] = useState<Attempt | null>(null);
  const [firstAt, setFirstAt] = useState<number | null>(null);
  const [number, setNumber] = useState(1);
  const [problem, setProblem] = useState("");
  const clicks = useRef<Click[]>([]);
  const asked = useRef(0);
  const start = useRef(0);

  const ask = async (made: Click[]) => {
    asked.current += 1;
    const mine = asked.current;
    try {
      const found = await followClicks(jobId, sequenceId, made);
      if (mine === asked.current) setState(found);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const askLatest = useRef(ask);
  askLatest.current = ask;
  useEffect(() => {
    void askLatest.current([]);
  }, []);

  return {
    state,
    firstAt,
    number,
    problem,
    click: (direction: Click["direction"]) => {
      if (state?.is_over) return;
      const now = performance.now();
      if (clicks.current.length === 0) {
        start.current = now;
        setFirstAt(now);
      }
      clicks.current = [...clicks.current, { direction, at_s: (now - start.current) / 1000 }];
      void ask(clicks.current);
    },
    reset: () => {
      clicks.current = [];
      setFirstAt(null);
      setProblem("");
      setNumber((before) => before + 1);
      void ask([]);
    },
  };
}
