import { useEffect, useState } from "react";
import type { Decoded } from "../../api/client";
import { decodeLamps } from "../../api/rooms";

/** What a pattern of lamps says, asked again with every lamp. */
export function useDecoded(jobId: string, scheme: string, pattern: string) {
  const [decoded, setDecoded] = useState<Decoded | null>(null);
  const [problem, setProblem] = useState("");
  useEffect(() => {
    if (!pattern) {
      setDecoded(null);
      return setProblem("");
    }
    let isLatest = true;
    decodeLamps(jobId, { scheme, pattern })
      .then((found) => {
        if (!isLatest) return;
        setDecoded(found);
        setProblem("");
      })
      .catch((error: Error) => {
        if (!isLatest) return;
        setDecoded(null);
        setProblem(error.message);
      });
    return () => {
      isLatest = false;
    };
  }, [jobId, scheme, pattern]);
  return { decoded, problem };
}
