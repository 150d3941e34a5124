import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { showAnswer } from "./freshness";
import { sendOnce } from "./once";
import { roomKey } from "./writing";

export type Piece = Schemas["FittingSpare"];
export type ShelfView = Schemas["ShelfView"];
export type SpareView = Schemas["SpareView"];
export type NewSpare = Schemas["NewSpare"];
export type PartsView = Schemas["PartsView"];
export type WantedView = Schemas["WantedView"];
export type NewWanted = Schemas["NewWanted"];

export function useShelf() {
  return useQuery({ queryKey: ["shelf"], queryFn: () => unwrap(client.GET("/api/shelf")) });
}

export function useKeepSpare() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: NewSpare }) =>
      unwrap(client.PUT("/api/shelf/{spare_id}", { params: { path: { spare_id: id } }, body })),
    onSuccess: (view) => showAnswer(queries, ["shelf"], view),
  });
}

export function useMeasureSpare() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, test, text }: { id: string; test: string; text: string }) =>
      sendOnce(`shelf ${id} ${test}`, text, (once) =>
        unwrap(
          client.POST("/api/shelf/{spare_id}/readings", {
            params: { path: { spare_id: id } },
            body: { id: once, test, text },
          }),
        ),
      ),
    onSuccess: (view) => showAnswer(queries, ["shelf"], view),
  });
}

export function useParts(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "parts"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/parts", { params: { path: { job_id: jobId } } })),
  });
}

export function useKeepWanted(jobId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: NewWanted }) =>
      unwrap(
        client.PUT("/api/jobs/{job_id}/parts/{wanted_id}", {
          params: { path: { job_id: jobId, wanted_id: id } },
          body,
        }),
      ),
    onSuccess: (view) => showAnswer(queries, roomKey(jobId, "parts"), view),
  });
}

export function useRemoveWanted(jobId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      unwrap(
        client.DELETE("/api/jobs/{job_id}/parts/{wanted_id}", {
          params: { path: { job_id: jobId, wanted_id: id } },
        }),
      ),
    onSuccess: (view) => showAnswer(queries, roomKey(jobId, "parts"), view),
  });
}

/** The pieces of the shelf that a part of a job may be replaced by. */
export function usePieces(jobId: string, part: string) {
  return useQuery({
    queryKey: [...roomKey(jobId, "pieces"), part],
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/pieces", { params: { path: { job_id: jobId }, query: { part } } }),
      ),
  });
}
