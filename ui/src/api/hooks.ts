import {
  keepPreviousData,
  type QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import {
  ApiError,
  client,
  type Job,
  type Meter,
  type Schemas,
  type Settings,
  type Trace,
  unwrap,
} from "./client";
import { deviceId } from "./device";

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

export function useJobs(find = "") {
  return useQuery({
    queryKey: ["jobs", find],
    queryFn: async () => (await unwrap(client.GET("/api/jobs", { params: { query: { find } } }))).jobs,
    placeholderData: keepPreviousData,
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
function useJobChange<T>(jobId: string, send: (body: T, revision: number) => Promise<Trace>, retry: boolean) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (body: T) => {
      const seen = seenRevision(queries, jobId);
      try {
        return await send(body, seen);
      } catch (error) {
        const current = error instanceof ApiError ? error.problem?.revision : undefined;
        if (current === undefined || current === null) throw error;
        await queries.invalidateQueries({ queryKey: traceKey(jobId) });
        if (!retry) throw error;
        return send(body, current);
      }
    },
    onSuccess: (after) => {
      const merged = merge(queries.getQueryData<Trace>(traceKey(jobId)), after);
      if (merged) queries.setQueryData(traceKey(jobId), merged);
      else void queries.invalidateQueries({ queryKey: traceKey(jobId) });
      void queries.invalidateQueries({ queryKey: ["jobs"] });
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

type Unrevised<T> = Omit<T, "revision">;

/** Readings are only ever appended, so one that met a newer revision is sent again on top of it. */
export function useLogReading(jobId: string) {
  const params = { path: { job_id: jobId } };
  return useJobChange<Unrevised<Schemas["NewReading"]>>(
    jobId,
    (body, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings", {
          params,
          body: { ...body, revision, device: deviceId() },
        }),
      ),
    true,
  );
}

export function useWithdraw(jobId: string) {
  return useJobChange<{ id: string; readingId: string }>(
    jobId,
    ({ id, readingId }, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings/{reading_id}/withdrawal", {
          params: { path: { job_id: jobId, reading_id: readingId } },
          body: { id, revision },
        }),
      ),
    true,
  );
}

export function useWriteNote(jobId: string) {
  const params = { path: { job_id: jobId } };
  return useJobChange<Unrevised<Schemas["NewNote"]>>(
    jobId,
    (body, revision) =>
      unwrap(client.POST("/api/jobs/{job_id}/notes", { params, body: { ...body, revision } })),
    false,
  );
}

export function useSettings() {
  return useQuery({ queryKey: ["settings"], queryFn: () => unwrap(client.GET("/api/settings")) });
}

export function useKeepSettings() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Settings) => unwrap(client.PUT("/api/settings", { body })),
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
    mutationFn: (body: Meter) => unwrap(client.POST("/api/meters", { body })),
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
