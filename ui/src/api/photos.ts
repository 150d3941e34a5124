import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, LARGEST_PHOTO, refuseLarge, type Schemas, unwrap } from "./client";
import { fileMark } from "./once";
import { ofJob, refreshJob, useJobWrite } from "./writing";

type NewPhoto = { role: string; file: File; event?: string };

export function useKeepPhoto(jobId: string) {
  return useJobWrite(jobId, {
    place: ({ role, event = "" }: NewPhoto) => `photo ${role} ${event}`,
    mark: ({ file }) => fileMark(file),
    send: ({ role, file, event = "" }, id) => {
      refuseLarge(file, LARGEST_PHOTO);
      const form = new FormData();
      form.append("id", id);
      form.append("role", role);
      form.append("event", event);
      form.append("file", file);
      return unwrap(
        client.POST("/api/jobs/{job_id}/photos", {
          params: ofJob(jobId),
          body: form as unknown as Schemas["PhotoForm"],
          bodySerializer: () => form,
        }),
      );
    },
  });
}

export function useRemovePhoto(jobId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (photoId: string) =>
      unwrap(
        client.DELETE("/api/jobs/{job_id}/photos/{photo_id}", {
          params: { path: { job_id: jobId, photo_id: photoId } },
        }),
      ),
    onSuccess: () => refreshJob(queries, jobId),
  });
}
