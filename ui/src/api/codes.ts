import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Click, client, type Meaning, type Schemas, unwrap } from "./client";
import { ofJob, refreshJob, roomKey } from "./writing";

export function useCodes(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "codes"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/codes", { params: ofJob(jobId) })),
  });
}

export function decodeLamps(jobId: string, body: Schemas["Pattern"], signal: AbortSignal | null = null) {
  return unwrap(client.POST("/api/jobs/{job_id}/codes/decode", { params: ofJob(jobId), body, signal }));
}

export function followClicks(jobId: string, sequence: string, clicks: Click[]) {
  return unwrap(
    client.POST("/api/jobs/{job_id}/codes/coach", { params: ofJob(jobId), body: { sequence, clicks } }),
  );
}

export function useKeepMeanings(jobId: string, sheetId: string, schemeId: string) {
  const queries = useQueryClient();
  const params = { path: { sheet_id: sheetId, scheme_id: schemeId } };
  return useMutation({
    mutationFn: (wanted: Meaning[] | File) =>
      wanted instanceof File
        ? unwrap(
            client.POST("/api/sheets/{sheet_id}/meanings/{scheme_id}/import", {
              params,
              body: wanted as never,
              bodySerializer: () => wanted,
              headers: { "Content-Type": "text/csv" },
            }),
          )
        : unwrap(
            client.PUT("/api/sheets/{sheet_id}/meanings/{scheme_id}", { params, body: { rows: wanted } }),
          ),
    onSuccess: () => refreshJob(queries, jobId),
  });
}
