import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";

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

export function useOpenJob() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewJob"]) => unwrap(client.POST("/api/jobs", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["jobs"] }),
  });
}
