import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./writing";

export type SheetOutView = Schemas["SheetOutView"];
export type Costs = SheetOutView["costs"];

export function useSheetOut(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "sheet-out"),
    queryFn: () =>
      unwrap(client.GET("/api/jobs/{job_id}/sheet-out", { params: { path: { job_id: jobId } } })),
  });
}
