import { useQuery } from "@tanstack/react-query";
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
