import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { askAgain, showAnswer } from "./freshness";

export type SheetView = Schemas["SheetView"];
export type SheetTitle = Schemas["SheetTitle"];
export type Kind = Schemas["Kind"];
export type Raw = Record<string, unknown>;

const at = (sheetId: string) => ({ params: { path: { sheet_id: sheetId } } });

export function useSheets() {
  return useQuery({
    queryKey: ["sheets"],
    queryFn: async () => (await unwrap(client.GET("/api/sheets"))).sheets,
  });
}

export function useSheet(sheetId: string) {
  return useQuery({
    queryKey: ["sheet", sheetId],
    queryFn: () => unwrap(client.GET("/api/sheets/{sheet_id}", at(sheetId))),
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnMount: "always",
  });
}

export function useKinds() {
  return useQuery({
    queryKey: ["kinds"],
    queryFn: async () => (await unwrap(client.GET("/api/kinds"))).kinds,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useBlindSpots(sheetId: string, isAsked: boolean) {
  return useQuery({
    queryKey: ["blind-spots", sheetId],
    queryFn: () => unwrap(client.GET("/api/sheets/{sheet_id}/blind-spots", at(sheetId))),
    enabled: isAsked,
  });
}

type Act =
  | { kind: "keep"; raw: Raw; revision: number }
  | { kind: "use"; revision: number }
  | { kind: "drop" };

/** Keep a draft, put it into use, or drop it; each answers with the sheet as it then is. */
export function useDraftActs(sheetId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (act: Act): Promise<SheetView> => {
      if (act.kind === "use")
        return unwrap(
          client.POST("/api/sheets/{sheet_id}/draft/use", {
            ...at(sheetId),
            body: { revision: act.revision },
          }),
        );
      if (act.kind === "drop") return unwrap(client.DELETE("/api/sheets/{sheet_id}/draft", at(sheetId)));
      const { raw, revision } = act;
      return unwrap(client.PUT("/api/sheets/{sheet_id}/draft", { ...at(sheetId), body: { raw, revision } }));
    },
    onSuccess: (view, act) => {
      showAnswer(queries, ["sheet", sheetId], view);
      if (act.kind === "keep") return;
      void askAgain(queries, { queryKey: ["blind-spots", sheetId] });
      void askAgain(queries, { queryKey: ["sheets"] });
    },
    onError: () => askAgain(queries, { queryKey: ["sheet", sheetId] }),
  });
}

export function useImportSheet() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) =>
      unwrap(
        client.POST("/api/sheet-imports", {
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/yaml" },
        }),
      ),
    onSuccess: () => askAgain(queries, { queryKey: ["sheets"] }),
  });
}

export function useCopySheet() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SheetCopy"]) => unwrap(client.POST("/api/sheets", { body })),
    onSuccess: () => askAgain(queries, { queryKey: ["sheets"] }),
  });
}
