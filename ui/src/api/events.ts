import { client, type EventBody, unwrap } from "./client";
import { deviceId } from "./device";
import { ofJob, useJobWrite } from "./writing";

/** Write down what happened on a job. */
export function useEvent(jobId: string) {
  const write = useJobWrite(jobId, {
    place: (body: EventBody) => body.kind,
    send: (body, id, revision) =>
      unwrap(
        client.POST("/api/jobs/{job_id}/events", {
          params: ofJob(jobId),
          body: { id, revision, body, device: deviceId() },
        }),
      ),
  });
  return { ...write, jobId };
}

export type EventWrite = ReturnType<typeof useEvent>;
