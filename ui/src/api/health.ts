import { useQuery } from "@tanstack/react-query";
import { client, unwrap } from "./client";

/** What is wrong with the data or the disk, a sentence each. */
export function useHealth() {
  return useQuery({
    queryKey: ["health"],
    refetchInterval: 60_000,
    queryFn: () => unwrap(client.GET("/api/health")),
  });
}
