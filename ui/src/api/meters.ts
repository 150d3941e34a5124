import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { askAgain } from "./freshness";

export function useMeters() {
  return useQuery({ queryKey: ["meters"], queryFn: () => unwrap(client.GET("/api/meters")) });
}

/** The meters in the bag, the preferred one first. */
export function useMetersInBag(bag: string[] | undefined) {
  const meters = useMeters().data?.meters ?? [];
  return (bag ?? []).flatMap((id) => meters.find((meter) => meter.id === id) ?? []);
}

export function useKeepMeter() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewMeter"]) =>
      unwrap(client.PUT("/api/meters/{meter_id}", { params: { path: { meter_id: body.id } }, body })),
    onSuccess: () =>
      askAgain(queries, { queryKey: ["meters"] }).then(() => askAgain(queries, { queryKey: ["settings"] })),
  });
}

export function useRemoveMeter() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (meterId: string) =>
      unwrap(client.DELETE("/api/meters/{meter_id}", { params: { path: { meter_id: meterId } } })),
    onSuccess: () =>
      askAgain(queries, { queryKey: ["meters"] }).then(() => askAgain(queries, { queryKey: ["settings"] })),
  });
}
