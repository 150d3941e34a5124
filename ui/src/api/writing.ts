import { type QueryClient, type QueryKey, useMutation, useQueryClient } from "@tanstack/react-query";
import { ApiError, type Job, type Trace } from "./client";
import { askAgain, showAnswer } from "./freshness";
import { sendOnce } from "./once";

export const traceKey = (jobId: string) => ["trace", jobId];
export const roomKey = (jobId: string, room?: string) => (room ? ["room", jobId, room] : ["room", jobId]);
export const ofJob = (jobId: string) => ({ path: { job_id: jobId } });

/** The newest revision of a job that any screen has shown. */
export function seenRevision(queries: QueryClient, jobId: string): number {
  const views = [
    queries.getQueryData<Trace>(traceKey(jobId)),
    ...queries.getQueriesData<{ job: Job }>({ queryKey: roomKey(jobId) }).map(([, view]) => view),
  ];
  return Math.max(1, ...views.map((view) => view?.job.revision ?? 1));
}

const writtenHere = new Set<string>();

/** Whether something was written from this window: only that is undone here by one touch. */
export const isFromHere = (id: string) => writtenHere.has(id);

/** What is only ever appended goes on top of the newest revision: refused as older, it is sent once more. */
async function onTop<T>(
  queries: QueryClient,
  jobId: string,
  send: (revision: number) => Promise<T>,
): Promise<T> {
  try {
    return await send(seenRevision(queries, jobId));
  } catch (error) {
    const current = error instanceof ApiError ? error.problem?.revision : undefined;
    if (current === undefined || current === null) throw error;
    return send(current);
  }
}

/** Everything that shows this job is asked for again, but what an answer has just put there. */
export function refreshJob(queries: QueryClient, jobId: string, fresh?: QueryKey): Promise<void> {
  const isFresh = (key: QueryKey) => fresh !== undefined && JSON.stringify(key) === JSON.stringify(fresh);
  const again = (queryKey: QueryKey) =>
    askAgain(queries, { queryKey, predicate: (query) => !isFresh(query.queryKey) });
  for (const key of [["jobs"], ["job", jobId], traceKey(jobId)]) void again(key);
  return again(roomKey(jobId));
}

type JobWrite<T, A> = {
  /** The place that sends, so that a second press after a lost answer is known as one. */
  place: (body: T) => string;
  /** What tells one sending from another; the body itself where it says so. */
  mark?: (body: T) => unknown;
  send: (body: T, id: string, revision: number) => Promise<A>;
  /** Where the answer is shown; nowhere for one that is only told. */
  shown?: (answer: A) => QueryKey;
  /** Where the text is shown that it takes the place of: it never goes over one that was not seen there. */
  over?: QueryKey;
};

/** One way to write on a job: once, on top of the revision seen, and every screen of it asked again after. */
export function useJobWrite<T, A>(jobId: string, write: JobWrite<T, A>) {
  const { place, mark = (body) => body, send, shown, over } = write;
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: T) =>
      sendOnce(`${jobId} ${place(body)}`, mark(body), async (id) => {
        const answer = over
          ? await send(body, id, queries.getQueryData<{ job: Job }>(over)?.job.revision ?? 1)
          : await onTop(queries, jobId, (revision) => send(body, id, revision));
        writtenHere.add(id);
        return answer;
      }),
    onSettled: (answer) => {
      const key = answer === undefined ? undefined : shown?.(answer);
      if (key) showAnswer(queries, key, answer);
      const again = refreshJob(queries, jobId, key);
      return key ? undefined : again;
    },
  });
}
