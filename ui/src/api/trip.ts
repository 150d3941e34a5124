import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./hooks";

export type TripView = Schemas["TripView"];
export type TripMethod = TripView["method"];

export function useTrip(jobId: string, method: TripMethod) {
  return useQuery({
    queryKey: [...roomKey(jobId, "trip"), method],
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/trip", { params: { path: { job_id: jobId }, query: { method } } }),
      ),
  });
}

export type HouseView = Schemas["HouseView"];
export type RunPreview = Schemas["RunPreview"];

/** What each run proved, as of a revision of the job. */
export function useTripStory(jobId: string, method: TripMethod, revision: number, isWanted: boolean) {
  return useQuery({
    queryKey: ["trip-story", jobId, method, revision],
    enabled: isWanted,
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/trip/story", {
          params: { path: { job_id: jobId }, query: { method } },
        }),
      ),
  });
}

/** What a typed line says. */
export function previewRun(jobId: string, line: string, method: TripMethod) {
  return unwrap(
    client.POST("/api/jobs/{job_id}/trip/preview", {
      params: { path: { job_id: jobId } },
      body: { line, method },
    }),
  );
}

/** The same while it is typed; the last answer stays while the next is on its way. */
export function useRunPreview(jobId: string, line: string, method: TripMethod) {
  return useQuery({
    queryKey: ["trip-line", jobId, method, line],
    enabled: line.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => previewRun(jobId, line, method),
  });
}
