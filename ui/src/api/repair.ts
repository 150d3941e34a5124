import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./writing";

export type RepairView = Schemas["RepairView"];
export type WorthView = Schemas["WorthView"];
export type Assumptions = WorthView["given"];

export type Plan = Schemas["PlanView"];

/** The repair of a job, with the plan for a part; for the one that is mended next where none is chosen. */
export function useRepair(jobId: string, part: string) {
  return useQuery({
    queryKey: [...roomKey(jobId, "repair"), part],
    placeholderData: keepPreviousData,
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/repair", { params: { path: { job_id: jobId }, query: { part } } }),
      ),
  });
}

/** What each way to go on costs; with no figures given, by the usual ones. */
export function useWorth(jobId: string, part: string, given: Assumptions | null) {
  return useQuery({
    queryKey: ["worth", jobId, part, given],
    placeholderData: keepPreviousData,
    queryFn: () =>
      unwrap(
        client.POST("/api/jobs/{job_id}/worth", {
          params: { path: { job_id: jobId } },
          body: { part, given },
        }),
      ),
  });
}
