import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Address, client, unwrap } from "./client";
import { askAgain } from "./freshness";

export function useAddresses() {
  return useQuery({
    queryKey: ["addresses"],
    queryFn: async () => (await unwrap(client.GET("/api/addresses"))).entries,
  });
}

export function useKeepAddress() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Address) =>
      unwrap(client.PUT("/api/addresses/{address_id}", { params: { path: { address_id: body.id } }, body })),
    onSuccess: () => {
      for (const queryKey of [["addresses"], ["machines"], ["jobs"], ["job"], ["trace"], ["room"]]) {
        void askAgain(queries, { queryKey });
      }
    },
  });
}

export function useMachines() {
  return useQuery({
    queryKey: ["machines"],
    queryFn: async () => (await unwrap(client.GET("/api/machines"))).machines,
  });
}
