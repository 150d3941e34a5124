import { beforeEach, expect, test, vi } from "vitest";
import { ApiError } from "../src/api/client";
import { sendOnce } from "../src/api/once";

const lost = () => Promise.reject(new TypeError("connection lost"));
const noted = (ids: string[], id: string) => {
  ids.push(id);
  return lost();
};

beforeEach(() => vi.useFakeTimers());

test("a lost answer and a second press go out under one id, whatever was drawn anew between", async () => {
  const ids: string[] = [];
  await expect(sendOnce("j cover", { panel: "back" }, (id) => noted(ids, id))).rejects.toThrow();
  await sendOnce("j cover", { panel: "back" }, async (id) => ids.push(id));
  expect(ids[0]).toBe(ids[1]);
});

test("what was acknowledged, changed, or left for ten minutes goes out under another id", async () => {
  const ids: string[] = [];
  const take = async (id: string) => ids.push(id);
  await sendOnce("j a", "same", take);
  await sendOnce("j a", "same", take);
  await sendOnce("j b", "one", (id) => noted(ids, id)).catch(() => undefined);
  await sendOnce("j b", "two", take);
  await sendOnce("j b", "one", (id) => noted(ids, id)).catch(() => undefined);
  vi.advanceTimersByTime(11 * 60_000);
  await sendOnce("j b", "one", take);
  await sendOnce("j c", "one", take);
  expect(new Set(ids).size).toBe(ids.length);
});

test("a refusal between, of something else, keeps the id of what was lost", async () => {
  const ids: string[] = [];
  const refused = () =>
    Promise.reject(new ApiError("no", { type: "", title: "", status: 403, detail: "no" }));
  await sendOnce("j d", "was before", (id) => noted(ids, id)).catch(() => undefined);
  await sendOnce("j d", "without", refused).catch(() => undefined);
  await sendOnce("j d", "was before", async (id) => ids.push(id));
  expect(ids[0]).toBe(ids[1]);
});
