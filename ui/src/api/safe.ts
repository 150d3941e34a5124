import { useQuery } from "@tanstack/react-query";
import { client, unwrap } from "./client";
import { deviceId } from "./device";
import { ofJob, roomKey } from "./writing";

export function useSafe(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "safe"),
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/safe", { params: { ...ofJob(jobId), query: { device: deviceId() } } }),
      ),
    refetchInterval: 15_000,
  });
}
