import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type NewIntake, unwrap } from "./client";
import { showAnswer } from "./freshness";
import { ofJob, refreshJob, roomKey } from "./writing";

export function useIntake(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "intake"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/intake", { params: ofJob(jobId) })),
  });
}

/** The intake as it is typed, over the one that was seen. */
export function useKeepIntake(jobId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: NewIntake & { intake_revision: number }) =>
      unwrap(client.PUT("/api/jobs/{job_id}/intake", { params: ofJob(jobId), body })),
    onSuccess: (view) => {
      showAnswer(queries, roomKey(jobId, "intake"), view);
      void refreshJob(queries, jobId, roomKey(jobId, "intake"));
    },
  });
}
