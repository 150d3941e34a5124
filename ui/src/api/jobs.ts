import {
  keepPreviousData,
  useInfiniteQuery,
  useIsMutating,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, type Schemas, unwrap } from "./client";
import { useEvent } from "./events";
import { askAgain } from "./freshness";
import { useWithdraw } from "./trace";
import { isFromHere } from "./writing";

/** Jobs that go on, or that have ended, page by page; a search that was overtaken is given up. */
export function useJobs(find: string, ended: boolean, isWanted = true) {
  return useInfiniteQuery({
    queryKey: ["jobs", find, ended],
    enabled: isWanted,
    initialPageParam: "",
    queryFn: ({ pageParam, signal }) =>
      unwrap(client.GET("/api/jobs", { params: { query: { find, ended, after: pageParam } }, signal })),
    getNextPageParam: (page) => page.more || undefined,
    placeholderData: keepPreviousData,
  });
}

/** One job at a glance, as the frame of every room shows it. */
export function useJob(jobId: string) {
  return useQuery({
    queryKey: ["job", jobId],
    enabled: jobId !== "",
    retry: false,
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
  });
}

/** How far the search of a job is and what to do next, as every room ends with it. */
export function useOutlook(jobId: string) {
  return useQuery({
    queryKey: ["job", jobId, "outlook"],
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/outlook", { params: { path: { job_id: jobId } } })),
  });
}

export type Undo = NonNullable<Schemas["OutlookView"]["undo"]>;

type UndoOptions = {
  /** What has its way back elsewhere. */
  skips?: Undo["of"] | undefined;
  /** What is done where nothing of this window is last. */
  otherwise?: () => void;
};

/**
 * What was done last, where it was from this window, and the way to take it back, each kind in its own.
 *
 * An undo that is asked for while something is on its way waits for it: what is taken back is never the act before.
 */
export function useUndo(jobId: string, { skips, otherwise }: UndoOptions = {}) {
  const { data, isFetching } = useOutlook(jobId);
  const isBusy = useIsMutating() > 0 || isFetching;
  const withdraw = useWithdraw(jobId);
  const record = useEvent(jobId);
  const [isWanted, setIsWanted] = useState(false);
  const undo = useMutation({
    mutationFn: async ({ id, of }: Undo) => {
      if (of === "reading") await withdraw.mutateAsync(id);
      else if (of === "leak_test") await record.mutateAsync({ kind: "run_withdrawn", run: id });
      else await record.mutateAsync({ kind: "record_withdrawn", record: id });
    },
  });
  const found = data?.undo;
  const last = found && found.of !== skips && isFromHere(found.id) ? found : null;
  useEffect(() => {
    if (!isWanted || isBusy) return;
    setIsWanted(false);
    if (last) undo.mutate(last);
    else otherwise?.();
  }, [isWanted, isBusy, last, otherwise, undo]);
  return { last, isBusy, error: undo.error, take: () => setIsWanted(true) };
}

export function useOpenJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewJob"]) => unwrap(client.POST("/api/jobs", { body })),
    onSuccess: () => askAgain(queries, { queryKey: ["jobs"] }),
  });
}
