import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { deviceId } from "./device";
import { ofJob, traceKey, useJobWrite } from "./writing";

export function useTrace(jobId: string) {
  return useQuery({
    queryKey: traceKey(jobId),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/trace", { params: { path: { job_id: jobId } } })),
  });
}

/** What a form fills in; id and revision are added when it is sent. */
type Typed<T> = Omit<T, "id" | "revision" | "device">;

export function useLogReading(jobId: string) {
  return useJobWrite(jobId, {
    place: () => "reading",
    send: (body: Typed<Schemas["NewReading"]>, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings", {
          params: ofJob(jobId),
          body: { ...body, id, revision, device: deviceId() },
        }),
      ),
    shown: () => traceKey(jobId),
  });
}

export function useWithdraw(jobId: string) {
  return useJobWrite(jobId, {
    place: () => "withdrawal",
    send: (readingId: string, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/readings/{reading_id}/withdrawal", {
          params: { path: { job_id: jobId, reading_id: readingId } },
          body: { id, revision, device: deviceId() },
        }),
      ),
    shown: () => traceKey(jobId),
  });
}

/** A note takes the place of the former one, so it never goes over one that was written meanwhile. */
export function useWriteNote(jobId: string) {
  return useJobWrite(jobId, {
    place: (body: Typed<Schemas["NewNote"]>) => `note ${body.line}`,
    send: (body, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/notes", { params: ofJob(jobId), body: { ...body, id, revision } }),
      ),
    shown: () => traceKey(jobId),
    over: traceKey(jobId),
  });
}

/** What a typed line says, before it is logged. */
export function previewLine(
  jobId: string,
  body: Pick<Schemas["TypedLine"], "text" | "meter" | "line" | "says">,
  signal: AbortSignal,
) {
  return unwrap(
    client.POST("/api/jobs/{job_id}/preview", {
      params: ofJob(jobId),
      body: { ...body, device: deviceId() },
      signal,
    }),
  );
}

type OwnConfiguration = { states: Record<string, string>; pulled: string[] };

/** The ladder in a configuration of one's own, or in the one that a test needs. */
export function useRungs(jobId: string, test: string | null, own: OwnConfiguration | null) {
  const query = {
    test: test ?? "",
    pulled: own ? own.pulled.join(",") : "",
    states: own
      ? Object.entries(own.states)
          .map(([name, value]) => `${name}:${value}`)
          .join(",")
      : "",
  };
  const asked = new URLSearchParams(query).toString();
  return useQuery({
    queryKey: ["rungs", jobId, asked],
    queryFn: async () => ({
      ...(await unwrap(client.GET("/api/jobs/{job_id}/rungs", { params: { ...ofJob(jobId), query } }))),
      asked,
    }),
    placeholderData: keepPreviousData,
  });
}
