import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, expect, test } from "vitest";
import { useEvent } from "../src/api/events";
import { useOutlook } from "../src/api/jobs";
import { useKeepPhoto } from "../src/api/photos";
import { useLogReading, useTrace, useWithdraw, useWriteNote } from "../src/api/trace";
import { useTakeLeakTest } from "../src/api/trip";
import { traceKey } from "../src/api/writing";
import { TRACE } from "./render";

type Sent = { id: string; revision: number };
/** Answers in turn: a lost one, a refusal as older than a revision, or what is stored. */
type Turn = "lost" | { older: number } | object;

let sent: Sent[] = [];
let turns: Turn[] = [];

beforeEach(() => {
  sent = [];
  globalThis.fetch = async (input) => {
    const request = input as Request;
    if (request.method === "GET") return Response.json(TRACE);
    const isForm = request.headers.get("Content-Type")?.startsWith("multipart") ?? false;
    const body = isForm ? Object.fromEntries(await request.formData()) : await request.json();
    sent.push({ id: String(body.id), revision: Number(body.revision) });
    const turn = turns.shift();
    if (turn === "lost" || turn === undefined) throw new TypeError("connection lost");
    if (!("older" in turn)) return Response.json(turn, { status: 201 });
    const told = { type: "/problems/stale-revision", title: "", status: 409, detail: "moved on" };
    return Response.json({ ...told, revision: turn.older }, { status: 409 });
  };
});

/** A hook in a window of its own, which has seen revision 7 of the job. */
function inWindow<T>(hook: () => T) {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  });
  queries.setQueryData(traceKey("j-1"), TRACE);
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  return { ...renderHook(hook, { wrapper }), queries };
}

const file = new File(["picture"], "tag.jpg", { type: "image/jpeg" });
const READING = { text: "heater 26", meter: null, supersedes: null };
const LEAK_TEST = { line: "whole 50k", method: "insulation" as const, are_wires_insulated: false };
/** Every way to write on a job, and whether it goes on top of what another window wrote meanwhile. */
const WRITES = [
  ["an event", () => useEvent("j-1"), { kind: "attended" }, true],
  ["a reading", () => useLogReading("j-1"), READING, true],
  ["a reading taken back", () => useWithdraw("j-1"), "r-1", true],
  ["a note", () => useWriteNote("j-1"), { line: "heater.pe", text: "wet" }, false],
  ["a leak test", () => useTakeLeakTest("j-1"), LEAK_TEST, true],
] as const;

test.each(WRITES)("%s whose answer was lost goes out again under its id", async (_name, hook, body) => {
  const { result } = inWindow(hook as () => { mutateAsync: (body: unknown) => Promise<unknown> });
  turns = ["lost", TRACE];
  await act(async () => {
    await expect(result.current.mutateAsync(body)).rejects.toThrow("does not answer");
    await result.current.mutateAsync(body);
    turns = [TRACE];
    await result.current.mutateAsync(body);
  });
  const [first, second, third] = sent.map((row) => row.id);
  expect(second).toBe(first);
  expect(third).not.toBe(first);
});

test.each(WRITES)("%s that another window overtook", async (_name, hook, body, isAppended) => {
  const { result } = inWindow(hook as () => { mutateAsync: (body: unknown) => Promise<unknown> });
  turns = [{ older: 9 }, TRACE];
  await act(async () => {
    const answer = result.current.mutateAsync(body);
    await (isAppended ? expect(answer).resolves.toBeTruthy() : expect(answer).rejects.toThrow("moved on"));
  });
  expect(sent.map((row) => row.revision)).toEqual(isAppended ? [7, 9] : [7]);
  if (isAppended) expect(sent[1]?.id).toBe(sent[0]?.id);
});

test("an event that two windows overtook in turn is told, not sent for ever", async () => {
  const { result } = inWindow(() => useEvent("j-1"));
  turns = [{ older: 9 }, { older: 10 }];
  await act(() => expect(result.current.mutateAsync({ kind: "attended" })).rejects.toThrow("moved on"));
  expect(sent).toHaveLength(2);
});

test("the answer to a reading is what the sheet shows at once, and the revision that the next goes on top of", async () => {
  const { result, queries } = inWindow(() => ({ log: useLogReading("j-1"), trace: useTrace("j-1") }));
  const after = { ...TRACE, job: { ...TRACE.job, revision: 8 }, celsius: 5 };
  turns = [after, after];
  await act(() => result.current.log.mutateAsync(READING));
  expect(queries.getQueryData(traceKey("j-1"))).toEqual(after);
  await act(() => result.current.log.mutateAsync(READING));
  expect(sent.map((row) => row.revision)).toEqual([7, 8]);
});

test("a note goes on top of what the sheet shows, whatever another room has heard of meanwhile", async () => {
  const { result, queries } = inWindow(() => useWriteNote("j-1"));
  queries.setQueryData(["room", "j-1", "suspects"], { job: { ...TRACE.job, revision: 9 } });
  turns = [{ older: 9 }];
  await act(() => result.current.mutateAsync({ line: "heater.pe", text: "wet" }).catch(() => undefined));
  expect(sent.map((row) => row.revision)).toEqual([7]);
});

/** Answers to one address wait until they are given, in the order in which they were asked for. */
function held(ending: string) {
  const told = globalThis.fetch;
  const asked: ((body: object) => void)[] = [];
  globalThis.fetch = (input, init) => {
    const { url, method } = input as Request;
    if (method !== "GET" || !url.endsWith(ending)) return told(input, init);
    return new Promise((answer) => asked.push((body) => answer(Response.json(body))));
  };
  return asked;
}

test("a first answer that was asked for before a write is not taken for the one after it", async () => {
  const asked = held("/outlook");
  const { result } = inWindow(() => ({ outlook: useOutlook("j-1"), event: useEvent("j-1") }));
  turns = [TRACE];
  await waitFor(() => expect(asked).toHaveLength(1));
  act(() => result.current.event.mutate({ kind: "attended" }));
  await waitFor(() => expect(asked).toHaveLength(2));
  await act(async () => {
    asked[0]?.({ sentence: "before" });
    asked[1]?.({ sentence: "after" });
  });
  await waitFor(() => expect(result.current.outlook.data?.sentence).toBe("after"));
});

test("a sheet that was asked for before a reading does not go over the one that the reading gave", async () => {
  const asked = held("/trace");
  const { result } = inWindow(() => ({ trace: useTrace("j-1"), log: useLogReading("j-1") }));
  await waitFor(() => expect(asked).toHaveLength(1));
  turns = [{ ...TRACE, job: { ...TRACE.job, revision: 8 } }];
  await act(() => result.current.log.mutateAsync(READING));
  await act(async () => asked[0]?.(TRACE));
  await waitFor(() => expect(result.current.trace.isFetching).toBe(false));
  expect(result.current.trace.data?.job.revision).toBe(8);
});

test("what another window wrote is asked for after a refusal", async () => {
  const { result } = inWindow(() => ({ note: useWriteNote("j-1"), trace: useTrace("j-1") }));
  const newer = { ...TRACE, job: { ...TRACE.job, revision: 12 } };
  const before = globalThis.fetch;
  globalThis.fetch = async (input) =>
    (input as Request).method === "GET" ? Response.json(newer) : before(input);
  turns = [{ older: 12 }];
  await act(() =>
    expect(result.current.note.mutateAsync({ line: "heater.pe", text: "wet" })).rejects.toThrow("moved on"),
  );
  await waitFor(() => expect(result.current.trace.data?.job.revision).toBe(12));
});

test("a photo whose answer was lost is the same photo, another file another one, a large one never sent", async () => {
  const { result } = inWindow(() => useKeepPhoto("j-1"));
  turns = ["lost", { photos: [] }, { photos: [] }];
  await act(async () => {
    await expect(result.current.mutateAsync({ role: "plate", file })).rejects.toThrow("does not answer");
    await result.current.mutateAsync({ role: "plate", file });
    await result.current.mutateAsync({ role: "plate", file: new File(["other one"], "tag.jpg") });
  });
  expect(sent[1]?.id).toBe(sent[0]?.id);
  expect(sent[2]?.id).not.toBe(sent[0]?.id);
  const large = new File(["x"], "large.jpg");
  Object.defineProperty(large, "size", { value: 40_000_000 });
  await act(() =>
    expect(result.current.mutateAsync({ role: "plate", file: large })).rejects.toThrow("large.jpg has 40 MB"),
  );
  expect(sent).toHaveLength(3);
});
