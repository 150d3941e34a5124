import { act, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Question, SuspectsView } from "../../src/api/suspects";
import { AS_NEXT } from "../../src/app/underHand";
import { TraceRoom } from "../../src/rooms/trace/TraceRoom";
import { example } from "../examples";
import { draw, HEATER, LEAK, serve, TRACE } from "../render";

const suspects = example<SuspectsView>("suspects");
const PUMP = { ...HEATER, key: "pump.coil", part: "pump", part_title: "Drain pump" };
const trace = {
  ...TRACE,
  lines: [HEATER, LEAK, PUMP],
  parts: [
    { id: "heater", title: "Heater", lines: [HEATER.key, LEAK.key], worst: LEAK.key, outside: 1 },
    { id: "pump", title: "Drain pump", lines: [PUMP.key], worst: null, outside: 0 },
  ],
};
const COIL: Question = {
  test: PUMP.key,
  kind: "test",
  title: "Drain pump, coil",
  settles: 0.4,
  minutes: 7.5,
  before: [],
  is_safe_first: false,
  bits: 0.6,
  expects: [],
  outcomes: [],
  what_ifs: [],
  also: [],
} as unknown as Question;
const asking = { ...suspects, job: TRACE.job, act: null, ask: [COIL] };

/** What the suspects answer, once they are let go. */
function held() {
  let release = () => undefined as unknown;
  const gate = new Promise<void>((resolve) => {
    release = resolve as () => unknown;
  });
  serve({ "/trace": { body: trace }, "/suspects": { body: asking }, "/preview": { body: {} } });
  const answer = globalThis.fetch;
  globalThis.fetch = async (input, init) => {
    if (new URL((input as Request).url).pathname.endsWith("/suspects")) await gate;
    return answer(input, init);
  };
  return () => release();
}

beforeEach(() => localStorage.clear());
afterEach(() => vi.useRealTimers());

describe("the part that is shown on arrival", () => {
  const busy = () => document.querySelector('.part-panel[aria-busy="true"]');
  const shown = (name: string) => screen.findByRole("heading", { level: 2, name });

  it("waits for the suspects, so that it does not move away, and follows what they ask", async () => {
    const release = held();
    draw(<TraceRoom />, "trace");
    await screen.findByRole("button", { name: /Heater/ });
    expect(busy()).not.toBeNull();
    expect(screen.queryByRole("heading", { level: 2, name: "Heater" })).toBeNull();
    release();
    expect(await shown("Drain pump")).toBeInTheDocument();
    expect(busy()).toBeNull();
  });

  it("is the one that reads outside where the suspects are late", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    held();
    draw(<TraceRoom />, "trace");
    await waitFor(() => expect(busy()).not.toBeNull());
    act(() => {
      vi.advanceTimersByTime(900);
    });
    expect(await shown("Heater")).toBeInTheDocument();
  });
});

describe("the line in question", () => {
  const LEAK_TEST = {
    kind: "leak_test",
    part: "heater",
    words: "Leak test. Pull both heater tags.",
    minutes: 2,
  };
  const inQuestion = () => document.querySelector(".in-question")?.getAttribute("data-key") ?? "";
  const shown = async (act: object | null, ask: Question[]) => {
    serve({
      "/trace": { body: trace },
      "/suspects": { body: { ...suspects, job: TRACE.job, act, ask } },
      "/readings": { status: 201, body: { ...trace, last_reading: "r-1" } },
      "/preview": { body: {} },
    });
    draw(<TraceRoom />, "trace", AS_NEXT);
    await screen.findByRole("region", { name: "Suspects" });
  };

  it("is the one that is asked, and under the hand for whoever came by the next step", async () => {
    await shown(null, [COIL]);
    await waitFor(() => expect(inQuestion()).toBe(PUMP.key));
    expect(screen.getByLabelText("Type a part and a reading")).toHaveFocus();
  });

  it("is none where something else is next, until lines are read one after the other", async () => {
    await shown(LEAK_TEST, []);
    await waitFor(() => expect(inQuestion()).toBe(""));
    const field = screen.getByLabelText("Type a part and a reading");
    expect(field).not.toHaveFocus();
    fireEvent.change(field, { target: { value: "heater pe 47k" } });
    fireEvent.submit((field as HTMLInputElement).form as HTMLFormElement);
    await waitFor(() => expect(inQuestion()).toBe(HEATER.key));
  });

  it("is none where a part is looked at, which is then the one that is shown", async () => {
    const look = {
      ...COIL,
      kind: "look",
      test: "pump.look_impeller",
      title: "Look at Drain pump",
    } as Question;
    await shown({ ...LEAK_TEST, kind: "look", part: "pump" }, [look]);
    expect(await screen.findByRole("heading", { level: 2, name: "Drain pump" })).toBeInTheDocument();
    expect(inQuestion()).toBe("");
  });

  it("is the next of the sheet where nothing is asked", async () => {
    await shown(null, []);
    await waitFor(() => expect(inQuestion()).toBe(HEATER.key));
  });
});
