import {
  keepPreviousData,
  type QueryClient,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { ApiError, client, type Job, type Schemas, type Settings, type Trace, unwrap } from "./client";
import { deviceId } from "./device";
import { sendOnce } from "./once";

const traceKey = (jobId: string) => ["trace", jobId];
export const roomKey = (jobId: string, room?: string) => (room ? ["room", jobId, room] : ["room", jobId]);

/** The newest revision of a job that any screen has shown. */
export function seenRevision(queries: QueryClient, jobId: string): number {
  const views = [
    queries.getQueryData<Trace>(traceKey(jobId)),
    ...queries.getQueriesData<{ job: Job }>({ queryKey: roomKey(jobId) }).map(([, view]) => view),
  ];
  return Math.max(1, ...views.map((view) => view?.job.revision ?? 1));
}

/** What is only ever appended goes on top of the newest revision: refused as older, it is sent once more. */
export async function onTop<T>(
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

/** Jobs that go on, or that have ended, page by page; a search that was overtaken is given up. */
export function useJobs(find: string, ended: boolean, isWanted = true) {
  return useInfiniteQuery({
    queryKey: ["jobs", find, ended],
    enabled: isWanted,
    initialPageParam: "",
    queryFn: ({ pageParam, signal }) =>
      unwrap(client.GET("/api/jobs", { params: { query: { find, ended, after: pageParam } }, signal })),
    getNextPageParam: (page) => page.more || undefined,
    placeholderData: keepPreviousData,
  });
}

/** One job at a glance, as the frame of every room shows it. */
export function useJob(jobId: string) {
  return useQuery({
    queryKey: ["job", jobId],
    enabled: jobId !== "",
    retry: false,
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
  });
}

/** How far the search of a job is and what to do next, as every room ends with it. */
export function useOutlook(jobId: string) {
  return useQuery({
    queryKey: ["job", jobId, "outlook"],
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/outlook", { params: { path: { job_id: jobId } } })),
  });
}

/** What is wrong with the data or the disk, a sentence each. */
export function useHealth() {
  return useQuery({
    queryKey: ["health"],
    refetchInterval: 60_000,
    queryFn: () => unwrap(client.GET("/api/health")),
  });
}

export function useSheets() {
  return useQuery({
    queryKey: ["sheets"],
    queryFn: async () => (await unwrap(client.GET("/api/sheets"))).sheets,
  });
}

export function useTrace(jobId: string) {
  return useQuery({
    queryKey: traceKey(jobId),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/trace", { params: { path: { job_id: jobId } } })),
  });
}

export function useOpenJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewJob"]) => unwrap(client.POST("/api/jobs", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["jobs"] }),
  });
}

/** Every change of a job answers with the job as it then is; that becomes what the screen shows. */
type Change<T> = {
  /** The place that sends, so that a second press after a lost answer is known as one. */
  key: (body: T) => string;
  send: (body: T, id: string, revision: number) => Promise<Trace>;
  retry: boolean;
};

function useJobChange<T>(jobId: string, { key, send, retry }: Change<T>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: T) =>
      sendOnce(`${jobId} ${key(body)}`, body, async (id) => {
        try {
          return await send(body, id, seenRevision(queries, jobId));
        } catch (error) {
          const current = error instanceof ApiError ? error.problem?.revision : undefined;
          if (current === undefined || current === null) throw error;
          await queries.invalidateQueries({ queryKey: traceKey(jobId) });
          if (!retry) throw error;
          return send(body, id, current);
        }
      }),
    onSuccess: (after) => {
      const merged = merge(queries.getQueryData<Trace>(traceKey(jobId)), after);
      if (merged) queries.setQueryData(traceKey(jobId), merged);
      else void queries.invalidateQueries({ queryKey: traceKey(jobId) });
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      void queries.invalidateQueries({ queryKey: ["job", jobId] });
      void queries.invalidateQueries({ queryKey: roomKey(jobId) });
    },
  });
}

/** The job after a change: the lines that changed in the place of the old ones; null where one is not known here. */
export function merge(before: Trace | undefined, after: Trace): Trace | null {
  const known = new Map([...(before?.lines ?? []), ...after.lines].map((line) => [line.key, line]));
  const lines = after.keys.flatMap((key) => known.get(key) ?? []);
  return lines.length === after.keys.length ? { ...after, lines } : null;
}

/** What a form fills in; id and revision are added when it is sent. */
type Typed<T> = Omit<T, "id" | "revision" | "device">;

/** Readings are only ever appended, so one that met a newer revision is sent again on top of it. */
export function useLogReading(jobId: string) {
  const params = { path: { job_id: jobId } };
  return useJobChange<Typed<Schemas["NewReading"]>>(jobId, {
    key: () => "reading",
    send: (body, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings", {
          params,
          body: { ...body, id, revision, device: deviceId() },
        }),
      ),
    retry: true,
  });
}

export function useWithdraw(jobId: string) {
  return useJobChange<string>(jobId, {
    key: () => "withdrawal",
    send: (readingId, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings/{reading_id}/withdrawal", {
          params: { path: { job_id: jobId, reading_id: readingId } },
          body: { id, revision },
        }),
      ),
    retry: true,
  });
}

export function useWriteNote(jobId: string) {
  const params = { path: { job_id: jobId } };
  return useJobChange<Typed<Schemas["NewNote"]>>(jobId, {
    key: (body) => `note ${body.line}`,
    send: (body, id, revision) =>
      unwrap(client.POST("/api/jobs/{job_id}/notes", { params, body: { ...body, id, revision } })),
    retry: false,
  });
}

export function useSettings() {
  return useQuery({ queryKey: ["settings"], queryFn: () => unwrap(client.GET("/api/settings")) });
}

/** Some settings as they are to be, and the settings as the form was filled with them. */
type SettingsChange = { seen: Settings; wanted: Partial<Omit<Settings, "revision">> };

/** Only what was changed is sent: what another window changed meanwhile stays, or is told with both values. */
export function useChangeSettings() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ seen, wanted }: SettingsChange) => {
      const changed = Object.entries(wanted).filter(
        ([name, value]) => JSON.stringify(value) !== JSON.stringify(seen[name as keyof Settings]),
      );
      const body = { revision: seen.revision ?? 0, ...Object.fromEntries(changed) };
      return unwrap(client.PATCH("/api/settings", { body }));
    },
    onError: () => queries.invalidateQueries({ queryKey: ["settings"] }),
    onSuccess: (settings) => {
      queries.setQueryData(["settings"], settings);
      void queries.invalidateQueries({
        predicate: ({ queryKey }) => ["trace", "room"].includes(String(queryKey[0])),
      });
    },
  });
}

export function useLimits() {
  return useQuery({ queryKey: ["limits"], queryFn: () => unwrap(client.GET("/api/limits")) });
}

export function useMeters() {
  return useQuery({ queryKey: ["meters"], queryFn: () => unwrap(client.GET("/api/meters")) });
}

export function useKeepMeter() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewMeter"]) => unwrap(client.POST("/api/meters", { body })),
    onSuccess: () =>
      queries
        .invalidateQueries({ queryKey: ["meters"] })
        .then(() => queries.invalidateQueries({ queryKey: ["settings"] })),
  });
}

export function useRemoveMeter() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (meterId: string) =>
      unwrap(client.DELETE("/api/meters/{meter_id}", { params: { path: { meter_id: meterId } } })),
    onSuccess: () =>
      queries
        .invalidateQueries({ queryKey: ["meters"] })
        .then(() => queries.invalidateQueries({ queryKey: ["settings"] })),
  });
}

/** What a typed line says, before it is logged. */
export function previewLine(
  jobId: string,
  body: { text: string; meter: string | null },
  signal: AbortSignal,
) {
  const params = { path: { job_id: jobId } };
  return unwrap(client.POST("/api/jobs/{job_id}/preview", { params, body, signal }));
}
