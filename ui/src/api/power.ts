import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, type Job, type ListedJob, type Safety, type Schemas, unwrap } from "./client";
import { askAgain } from "./freshness";
import { roomKey } from "./writing";

/** What every view of a job says of its machine. */
type Card = Pick<Job, "id" | "revision" | "power">;
export type PowerNow = Schemas["PowerNow"];
/** What the strip says: the state, or that it is not known because the server is silent. */
export type Stands = Safety | "unknown";

const EVERY = 2_000;
const PATIENCE = 3_000;
const HEADER = "Ohmcensus-Power";
const powerKey = (jobId: string) => ["power", jobId];

/** Every answer and every refusal of a job carries how its machine stands: it goes straight into the strip. */
export function followAnswers(queries: QueryClient): () => void {
  const middleware = {
    onResponse({ request, response }: { request: Request; response: Response }) {
      const said = response.headers.get(HEADER);
      const jobId = /\/api\/jobs\/([^/?]+)/.exec(request.url)?.[1];
      if (!said || !jobId || request.url.endsWith("/power")) return undefined;
      const now = JSON.parse(said) as PowerNow;
      const before = queries.getQueryData<PowerNow>(powerKey(jobId));
      if (!before || Date.parse(before.now) <= Date.parse(now.now)) {
        queries.setQueryData(powerKey(jobId), now);
      }
      return undefined;
    },
  };
  client.use(middleware);
  return () => client.eject(middleware);
}

/** Whatever shows another state or an older job than the server now tells is asked for again. */
function refreshBehind(queries: QueryClient, jobId: string, now: PowerNow) {
  const isBehind = (job: Card) => job.revision < now.revision || job.power.state !== now.power.state;
  for (const queryKey of [["trace", jobId], roomKey(jobId)]) {
    for (const [key, view] of queries.getQueriesData<{ job: Job }>({ queryKey })) {
      if (view && isBehind(view.job)) {
        void queries.invalidateQueries({ queryKey: key, exact: true }, { cancelRefetch: false });
      }
    }
  }
  const lists = queries.getQueriesData<{ pages: { jobs: ListedJob[] }[] }>({ queryKey: ["jobs"] });
  const shown = lists.flatMap(([, list]) => list?.pages.flatMap((page) => page.jobs) ?? []);
  if (shown.some((job) => job.id === jobId && isBehind(job))) {
    void queries.invalidateQueries({ queryKey: ["jobs"] }, { cancelRefetch: false });
  }
  const job = queries.getQueryData<Job>(["job", jobId]);
  if (job && isBehind(job)) void askAgain(queries, { queryKey: ["job", jobId] });
}

/** How the machine of a job stands now: asked every other second, not known once the server is silent. */
export function usePower(job: Card, isAsked = true): { stands: Stands; power: PowerNow["power"] } {
  const queries = useQueryClient();
  const { data, isError } = useQuery({
    queryKey: powerKey(job.id),
    queryFn: async () => {
      const now = await unwrap(
        client.GET("/api/jobs/{job_id}/power", {
          params: { path: { job_id: job.id } },
          signal: AbortSignal.timeout(PATIENCE),
        }),
      );
      refreshBehind(queries, job.id, now);
      return now;
    },
    refetchInterval: EVERY,
    refetchIntervalInBackground: true,
    networkMode: "always",
    retry: false,
    enabled: isAsked,
  });
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((count) => count + 1), 1_000);
    return () => clearInterval(timer);
  }, []);
  const power = data?.power ?? job.power;
  return { stands: isError ? "unknown" : standsAt(power, Date.now()), power };
}

/** The state by this screen's own clock: a proof of dead or live mode that has run out holds no longer. */
export function standsAt(power: PowerNow["power"], now: number): Safety {
  const isOver = power.until !== "" && Date.parse(power.until) <= now;
  if (!isOver) return power.state;
  return power.state === "dead" ? "not_proved" : power.state === "live" ? "under_voltage" : power.state;
}
