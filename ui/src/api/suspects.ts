import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, type Schemas, unwrap } from "./client";
import { roomKey } from "./writing";

export type SuspectsView = Schemas["SuspectsView"];
export type Suspect = Schemas["SuspectView"];
export type Plate = Schemas["PlateView"];
export type Question = Schemas["QuestionView"];
export type Objective = SuspectsView["objective"];

/** So often it is asked whether what the suspects follow from is worked out. */
const PREPARING_EVERY = 1_000;

/** The suspects of a job and what to ask next; the last answer stays while the next is on its way. */
export function useSuspects(jobId: string, objective: Objective) {
  return useQuery({
    queryKey: [...roomKey(jobId, "suspects"), objective],
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.preparing ? PREPARING_EVERY : false),
    queryFn: () =>
      unwrap(
        client.GET("/api/jobs/{job_id}/suspects", {
          params: { path: { job_id: jobId }, query: { objective } },
        }),
      ),
  });
}
