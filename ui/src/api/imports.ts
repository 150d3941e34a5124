import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ApiError, client, LARGEST_ARCHIVE, refuseLarge, type Schemas, unwrap } from "./client";

export type ImportView = Schemas["ImportView"];
const EVERY = 500;

/** Jobs out of a file, all of them or none; a large file comes in beside, and tells how far it is. */
export function useImportJobs() {
  const queries = useQueryClient();
  const [running, setRunning] = useState<ImportView | null>(null);
  const send = useMutation({
    mutationFn: (file: File) => {
      refuseLarge(file, LARGEST_ARCHIVE);
      return unwrap(
        client.POST("/api/imports", {
          params: { query: { name: file.name } },
          body: file as never,
          bodySerializer: () => file,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      );
    },
    onSuccess: setRunning,
  });
  const id = running?.id ?? "";
  const { data } = useQuery({
    queryKey: ["import", id],
    enabled: id !== "" && running?.is_over === false,
    refetchInterval: EVERY,
    queryFn: () => unwrap(client.GET("/api/imports/{import_id}", { params: { path: { import_id: id } } })),
  });
  useEffect(() => {
    if (data?.is_over) setRunning(data);
  }, [data]);
  const isOver = running?.is_over === true;
  useEffect(() => {
    if (isOver) void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "import" });
  }, [isOver, queries]);
  const stop = () =>
    unwrap(client.DELETE("/api/imports/{import_id}", { params: { path: { import_id: id } } }));
  const view = isOver ? running : (data ?? running);
  const error = send.error ?? (view?.problem ? new ApiError(view.problem) : null);
  return {
    begin: (file: File) => {
      setRunning(null);
      send.mutate(file);
    },
    stop,
    view,
    error,
    isSending: send.isPending,
  };
}
