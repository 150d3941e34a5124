import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { deviceId } from "./device";
import { useAsk } from "./useAsk";
import { ofJob, roomKey, useJobWrite } from "./writing";

export type TripView = Schemas["TripView"];
export type TripMethod = TripView["method"];

/** The isolation of a job; without a method, by that of its last leak test. */
export function useTrip(jobId: string, method: TripMethod | null) {
  return useQuery({
    queryKey: [...roomKey(jobId, "trip"), method],
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/trip", {
          params: { path: { job_id: jobId }, query: method ? { method } : {} },
        }),
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

/** What a typed line says while it is typed; the last answer stays while the next is on its way. */
export function useRunPreview(jobId: string, line: string, method: TripMethod) {
  return useAsk(line.trim() ? [method, line] : null, (signal) =>
    unwrap(
      client.POST("/api/jobs/{job_id}/trip/preview", {
        params: ofJob(jobId),
        body: { line, method },
        signal,
      }),
    ),
  );
}

export type TypedTest = { line: string; method: TripMethod; are_wires_insulated: boolean };

/** A leak test goes as it was typed; the answer is what it proves. */
export function useTakeLeakTest(jobId: string) {
  return useJobWrite(jobId, {
    place: () => "leak test",
    send: (typed: TypedTest, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/trip/tests", {
          params: ofJob(jobId),
          body: { ...typed, id, revision, meter: "", device: deviceId() },
        }),
      ),
    shown: (view) => [...roomKey(jobId, "trip"), view.method],
  });
}
