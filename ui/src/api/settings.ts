import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, LARGEST_PHOTO, refuseLarge, type Schemas, type Settings, unwrap } from "./client";
import { askAgain, showAnswer } from "./freshness";

export function useSettings() {
  return useQuery({ queryKey: ["settings"], queryFn: () => unwrap(client.GET("/api/settings")) });
}

/** Some settings as they are to be, and the settings as the form was filled with them. */
type SettingsChange = { seen: Settings; wanted: Partial<Omit<Settings, "revision" | "mark">> };

/** Only what was changed is sent: what another window changed meanwhile stays, or is told with both values. */
export function useChangeSettings() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ seen, wanted }: SettingsChange) => {
      const changed = Object.entries(wanted).filter(
        ([name, value]) => JSON.stringify(value) !== JSON.stringify(seen[name as keyof Settings]),
      );
      const body = { revision: seen.revision ?? 0, ...Object.fromEntries(changed) };
      return unwrap(client.PATCH("/api/settings", { body }));
    },
    onError: () => askAgain(queries, { queryKey: ["settings"] }),
    onSuccess: (settings) => {
      showAnswer(queries, ["settings"], settings);
      void askAgain(queries, {
        predicate: ({ queryKey }) => ["trace", "room", "limits"].includes(String(queryKey[0])),
      });
    },
  });
}

export function useKeepMark() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      refuseLarge(file, LARGEST_PHOTO);
      const form = new FormData();
      form.append("file", file);
      return unwrap(
        client.PUT("/api/firm/mark", {
          body: form as unknown as Schemas["MarkForm"],
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: (settings) => showAnswer(queries, ["settings"], settings),
  });
}

export function useRemoveMark() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(client.DELETE("/api/firm/mark")),
    onSuccess: (settings) => showAnswer(queries, ["settings"], settings),
  });
}

export function useLimits() {
  return useQuery({ queryKey: ["limits"], queryFn: () => unwrap(client.GET("/api/limits")) });
}
