import { ApiError, type Settings } from "../../api/client";

/** What a form has seen after it was saved: what was saved, or, once both values were told, that another one stands. */
export function seenAfter(set: (change: (seen: Settings) => Settings) => void) {
  return {
    onSuccess: (kept: Settings) => set(() => kept),
    onError: (error: Error) => {
      const revision = error instanceof ApiError ? error.problem?.revision : undefined;
      if (revision !== undefined && revision !== null) set((seen) => ({ ...seen, revision }));
    },
  };
}
