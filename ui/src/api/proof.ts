import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./writing";

export type ProveView = Schemas["ProveView"];
export type Criterion = Schemas["CriterionView"];

export function useProof(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "proof"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/proof", { params: { path: { job_id: jobId } } })),
  });
}
