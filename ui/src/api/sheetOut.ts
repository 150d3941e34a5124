import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./hooks";

export type SheetOutView = Schemas["SheetOutView"];
export type Costs = SheetOutView["costs"];

export function useSheetOut(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "sheet-out"),
    queryFn: () =>
      unwrap(client.GET("/api/jobs/{job_id}/sheet-out", { params: { path: { job_id: jobId } } })),
  });
}

/** Jobs out of a file, all of them or none. */
export function useImportJobs() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) =>
      unwrap(
        client.POST("/api/imports", {
          params: { query: { name: file.name } },
          body: file as never,
          bodySerializer: () => file,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}
