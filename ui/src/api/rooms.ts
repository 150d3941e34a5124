import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  type Address,
  type Click,
  client,
  type EventBody,
  LARGEST_PHOTO,
  type Meaning,
  type NewIntake,
  refuseLarge,
  type Schemas,
  unwrap,
} from "./client";
import { deviceId } from "./device";
import { onTop, roomKey, useMeters } from "./hooks";
import { fileMark, sendOnce } from "./once";

const ofJob = (jobId: string) => ({ path: { job_id: jobId } });

export function useIntake(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "intake"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/intake", { params: ofJob(jobId) })),
  });
}

export function useSafe(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "safe"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/safe", { params: ofJob(jobId) })),
    refetchInterval: 15_000,
  });
}

export function useCodes(jobId: string) {
  return useQuery({
    queryKey: roomKey(jobId, "codes"),
    queryFn: () => unwrap(client.GET("/api/jobs/{job_id}/codes", { params: ofJob(jobId) })),
  });
}

/** Everything that shows this job is asked for again. */
export function useRefresh(jobId: string) {
  const queries = useQueryClient();
  return () => {
    void queries.invalidateQueries({ queryKey: ["jobs"] });
    void queries.invalidateQueries({ queryKey: ["job", jobId] });
    void queries.invalidateQueries({ queryKey: ["trace", jobId] });
    return queries.invalidateQueries({ queryKey: roomKey(jobId) });
  };
}

/** Events are only ever appended, so one that met a newer revision is sent again on top of it. */
export function useEvent(jobId: string) {
  const queries = useQueryClient();
  const refresh = useRefresh(jobId);
  return useMutation({
    mutationFn: (body: EventBody) =>
      sendOnce(`${jobId} ${body.kind}`, body, (id) =>
        onTop(queries, jobId, (revision) =>
          unwrap(
            client.POST("/api/jobs/{job_id}/events", {
              params: ofJob(jobId),
              body: { id, revision, body, device: deviceId() },
            }),
          ),
        ),
      ),
    onSettled: refresh,
  });
}

export function useKeepIntake(jobId: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: NewIntake & { intake_revision: number }) =>
      unwrap(client.PUT("/api/jobs/{job_id}/intake", { params: ofJob(jobId), body })),
    onSuccess: (view) => {
      queries.setQueryData(roomKey(jobId, "intake"), view);
      void queries.invalidateQueries({ queryKey: ["jobs"] });
      void queries.invalidateQueries({ queryKey: ["job", jobId] });
      void queries.invalidateQueries({ queryKey: ["trace", jobId] });
      for (const room of ["safe", "codes"]) {
        void queries.invalidateQueries({ queryKey: roomKey(jobId, room) });
      }
    },
  });
}

export function useKeepPhoto(jobId: string) {
  const refresh = useRefresh(jobId);
  return useMutation({
    mutationFn: ({ role, file, event = "" }: { role: string; file: File; event?: string }) =>
      sendOnce(`${jobId} photo ${role} ${event}`, fileMark(file), (id) => {
        refuseLarge(file, LARGEST_PHOTO);
        const form = new FormData();
        form.append("id", id);
        form.append("role", role);
        form.append("event", event);
        form.append("file", file);
        return unwrap(
          client.POST("/api/jobs/{job_id}/photos", {
            params: ofJob(jobId),
            body: form as unknown as Schemas["PhotoForm"],
            bodySerializer: () => form,
          }),
        );
      }),
    onSuccess: refresh,
  });
}

export function useRemovePhoto(jobId: string) {
  const refresh = useRefresh(jobId);
  return useMutation({
    mutationFn: (photoId: string) =>
      unwrap(
        client.DELETE("/api/jobs/{job_id}/photos/{photo_id}", {
          params: { path: { job_id: jobId, photo_id: photoId } },
        }),
      ),
    onSuccess: refresh,
  });
}

export function decodeLamps(jobId: string, body: Schemas["Pattern"], signal: AbortSignal | null = null) {
  return unwrap(client.POST("/api/jobs/{job_id}/codes/decode", { params: ofJob(jobId), body, signal }));
}

export function followClicks(jobId: string, sequence: string, clicks: Click[]) {
  return unwrap(
    client.POST("/api/jobs/{job_id}/codes/coach", { params: ofJob(jobId), body: { sequence, clicks } }),
  );
}

export function useKeepMeanings(jobId: string, sheetId: string, schemeId: string) {
  const refresh = useRefresh(jobId);
  const params = { path: { sheet_id: sheetId, scheme_id: schemeId } };
  return useMutation({
    mutationFn: (wanted: Meaning[] | File) =>
      wanted instanceof File
        ? unwrap(
            client.POST("/api/sheets/{sheet_id}/meanings/{scheme_id}/import", {
              params,
              body: wanted as never,
              bodySerializer: () => wanted,
              headers: { "Content-Type": "text/csv" },
            }),
          )
        : unwrap(
            client.PUT("/api/sheets/{sheet_id}/meanings/{scheme_id}", { params, body: { rows: wanted } }),
          ),
    onSuccess: refresh,
  });
}

export function useCopySheet() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SheetCopy"]) => unwrap(client.POST("/api/sheets", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sheets"] }),
  });
}

export function useMachines() {
  return useQuery({
    queryKey: ["machines"],
    queryFn: async () => (await unwrap(client.GET("/api/machines"))).machines,
  });
}

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
        void queries.invalidateQueries({ queryKey });
      }
    },
  });
}

/** The meters in the bag, the preferred one first. */
export function useMetersInBag(bag: string[] | undefined) {
  const meters = useMeters().data?.meters ?? [];
  return (bag ?? []).flatMap((id) => meters.find((meter) => meter.id === id) ?? []);
}

type OwnConfiguration = { states: Record<string, string>; pulled: string[] };

/** The ladder in a configuration of one's own, or in the one that a test needs. */
export function useRungs(jobId: string, test: string | null, own: OwnConfiguration | null) {
  const query = {
    test: test ?? "",
    pulled: own ? own.pulled.join(",") : "",
    states: own
      ? Object.entries(own.states)
          .map(([name, value]) => `${name}:${value}`)
          .join(",")
      : "",
  };
  const asked = new URLSearchParams(query).toString();
  return useQuery({
    queryKey: ["rungs", jobId, asked],
    queryFn: async () => ({
      ...(await unwrap(client.GET("/api/jobs/{job_id}/rungs", { params: { ...ofJob(jobId), query } }))),
      asked,
    }),
    placeholderData: keepPreviousData,
  });
}
