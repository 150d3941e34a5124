import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import type { SafeState } from "../../src/api/client";
import { SafeRoom } from "../../src/rooms/safe/SafeRoom";
import { draw, serve, TRACE } from "../render";

const POINT = { typed: "dead ln ", between: ["L", "N"], limit: "at most 5 V", reads: "", is_good: null };
const ACT = {
  id: "measure" as const,
  label: "Measure it",
  how: "go" as const,
  where: { room: "safe" as const, at: "dangers" },
};
const VIEW: SafeState = {
  job: { ...TRACE.job, safety: "not_proved" },
  steps: [
    {
      id: "isolate",
      kind: "isolate",
      title: "Cut it off",
      how: "Pull the plug.",
      is_done: false,
      is_optional: false,
      waits_until: "",
    },
    {
      id: "taps",
      kind: "tick",
      title: "Shut the taps",
      how: "Both.",
      is_done: false,
      is_optional: false,
      waits_until: "",
    },
    {
      id: "prove",
      kind: "prove",
      title: "Prove it dead",
      how: "All with one meter.",
      is_done: false,
      is_optional: false,
      waits_until: "",
    },
  ],
  points: [
    {
      ...POINT,
      id: "source.known",
      typed: "source known ",
      title: "Known source, before",
      is_next: false,
      reads: "231 V",
      is_good: true,
    },
    { ...POINT, id: "dead.ln", title: "L to N", is_next: true },
    { ...POINT, id: "dead.le", title: "L to E", is_next: false, reads: "40 V", is_good: false },
  ],
  cuts: [
    { id: "unplugged", words: "unplugged, plug in sight" },
    { id: "plug_in_hand", words: "pulled plug in the hand, covers on" },
    { id: "locked_off", words: "locked off in all poles" },
  ],
  hand: [],
  meter: "Multimeter",
  sentence: "All with this one meter.",
  hazards: [],
  missing: [],
  refusals: [],
  opens: null,
  others_in: false,
  is_prover: true,
  may: { power: true, live: true, run: true },
  asks: [],
  cautions: ["Sharp edges."],
  panels: [{ id: "back", words: "Back panel", is_off: false }],
  parts: [{ id: "heater", words: "Heater" }],
  voltages: [],
  records: [{ id: "e-1", at: "2026-06-01T10:00:00Z", who: "", words: "locked off in all poles" }],
};
const SETTINGS = { body: { technician: "", ambient_celsius: 20, bag: [] } };

function room(view: SafeState = VIEW, more: Parameters<typeof serve>[0] = {}) {
  const sent = serve({
    "/settings": SETTINGS,
    "/meters": { body: { meters: [], generic: [] } },
    "/safe": { body: view },
    ...more,
  });
  draw(<SafeRoom />);
  return () => sent.filter((row) => row.path.endsWith("/events")).map((row) => row.body.body);
}
const taken = { "/events": { status: 201, body: VIEW.job } };

beforeEach(() => localStorage.clear());

describe("the next step", () => {
  const later = (seconds: number) => new Date(Date.now() + seconds * 1_000).toISOString();
  const step = (id: string, kind: "isolate" | "tick" | "prove", is_done: boolean, waits_until = "") => ({
    id,
    kind,
    title: id,
    how: "",
    is_done,
    is_optional: id === "weight",
    waits_until,
  });

  it("is under the hand, not the proof beyond it; one that may not apply holds nobody up", async () => {
    const before = [step("isolate", "isolate", true), step("taps", "tick", false)];
    const last = [step("weight", "tick", false), step("prove", "prove", false)];
    serve({ "/safe": { body: { ...VIEW, steps: [...before, ...last] } } });
    const drawn = draw(<SafeRoom />, "safe");
    await waitFor(() => expect(screen.getByRole("button", { name: "taps: done" })).toHaveFocus());
    drawn.unmount();
    serve({ "/safe": { body: { ...VIEW, steps: [step("isolate", "isolate", true), ...last] } } });
    draw(<SafeRoom />, "safe");
    await waitFor(() => expect(screen.getByLabelText("L to N, reads")).toHaveFocus());
  });

  it("of a charge counts down from the moment at which the machine was cut off", async () => {
    const charge = (waits_until: string) => [
      step("isolate", "isolate", true),
      step("discharge1", "tick", false, waits_until),
    ];
    serve({ "/safe": { body: { ...VIEW, steps: charge(later(272)) } } });
    const drawn = draw(<SafeRoom />, "safe");
    expect(await screen.findByRole("timer")).toHaveTextContent(/Wait 4:3[012], then measure/);
    drawn.unmount();
    serve({ "/safe": { body: { ...VIEW, steps: charge(later(-1)) } } });
    draw(<SafeRoom />, "safe");
    expect(await screen.findByRole("timer")).toHaveTextContent("Waited long enough: measure now");
  });
});

describe("making safe", () => {
  it("asks for the one reading that is due, and for no other", async () => {
    room();
    expect(await screen.findByLabelText("L to N, reads")).toBeInTheDocument();
    expect(screen.queryByLabelText("L to E, reads")).toBeNull();
    expect(screen.getByText("40 V")).toHaveClass("bad");
    expect(
      screen.getByText("Work for competent persons; local codes and licensed practice come first."),
    ).toBeInTheDocument();
  });

  it.each([
    ["Unplugged, plug in sight", { kind: "isolated", how: "unplugged" }],
    ["Locked off in all poles", { kind: "isolated", how: "locked_off" }],
    ["Pulled plug in the hand, covers on", { kind: "isolated", how: "plug_in_hand" }],
    ["Shut the taps: done", { kind: "step_ticked", step: "taps", is_done: true }],
    ["Plug in, panels shut", { kind: "plugged_in" }],
  ])("sends what '%s' says", async (name, body) => {
    const events = room(VIEW, taken);
    fireEvent.click(await screen.findByRole("button", { name }));
    await waitFor(() => expect(events()).toEqual([body]));
  });

  it("says what the server refuses, in its words", async () => {
    room(VIEW, {
      "/events": { status: 403, body: { type: "/problems/safety", detail: "no power: water inside" } },
    });
    fireEvent.click(await screen.findByRole("button", { name: "Plug in, panels shut" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("no power: water inside");
  });

  it("sends an event again on top of the newest revision, under the same id", async () => {
    const stale = {
      status: 409,
      body: { type: "/problems/stale-revision", detail: "moved on", revision: 9 },
    };
    const sent = serve({
      "/settings": SETTINGS,
      "/meters": { body: { meters: [], generic: [] } },
      "/safe": { body: VIEW },
      "/events": [stale, { status: 201, body: VIEW.job }],
    });
    draw(<SafeRoom />);
    fireEvent.click(await screen.findByRole("button", { name: "Plug in, panels shut" }));
    await waitFor(() => expect(sent.filter((row) => row.path.endsWith("/events"))).toHaveLength(2));
    const [first, second] = sent.filter((row) => row.path.endsWith("/events"));
    expect([first?.body.revision, second?.body.revision]).toEqual([7, 9]);
    expect(second?.body.id).toBe(first?.body.id);
  });

  it("notes a panel, a danger, a trip and a bypass taken out", async () => {
    const hazard = {
      hazard: "bypass",
      words: "an interlock is bypassed",
      forbids_power: false,
      forbids: ["a signature as safe"],
      remedy: "take it out",
      typed: "",
      is_told: true,
      act: ACT,
      asks_door: false,
      look: "",
    };
    const events = room({ ...VIEW, job: { ...VIEW.job, hazards: [hazard] }, hazards: [hazard] }, taken);
    fireEvent.click(await screen.findByRole("button", { name: "A cover off or back" }));
    fireEvent.click(screen.getByRole("button", { name: "Back panel is off" }));
    await waitFor(() => expect(events()).toHaveLength(1));
    fireEvent.click(screen.getByRole("button", { name: "Danger found" }));
    fireEvent.change(screen.getByLabelText("What"), { target: { value: "water_inside" } });
    fireEvent.change(screen.getByLabelText(/What you saw, smelt/), { target: { value: "in the base" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the danger" }));
    await waitFor(() => expect(events()).toHaveLength(2));
    fireEvent.click(screen.getByRole("button", { name: "It tripped" }));
    fireEvent.change(screen.getByLabelText("And the machine was"), { target: { value: "out" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the trip" }));
    await waitFor(() => expect(events()).toHaveLength(3));
    fireEvent.click(screen.getByRole("button", { name: "Bypass taken out" }));
    fireEvent.change(screen.getByLabelText(/How, and how it was tried/), {
      target: { value: "wires parted" },
    });
    fireEvent.submit(screen.getByLabelText(/How, and how it was tried/));
    await waitFor(() => expect(events()).toHaveLength(4));
    expect(events()).toEqual([
      { kind: "opened", panel: "back" },
      { kind: "hazard_found", hazard: "water_inside", words: "in the base" },
      { kind: "tripped", device: "unknown", moment: "unknown", machine: "out" },
      { kind: "bypass_removed", words: "wires parted" },
    ]);
  });

  it("shows what must pass before power, and takes its readings there", async () => {
    const missing = [
      { key: "cord.pe", typed: "cord pe ", title: "Cord, earth pin to chassis", should: "0.3 Ω at most" },
    ];
    const hazards = [
      {
        hazard: "shock",
        words: "gave a shock",
        forbids_power: true,
        forbids: ["power", "live work"],
        remedy: "earth must pass first",
        typed: "",
        is_told: true,
        act: ACT,
        asks_door: false,
        look: "",
      },
    ];
    const sent = serve({
      "/settings": SETTINGS,
      "/meters": { body: { meters: [], generic: [] } },
      "/safe": { body: { ...VIEW, hazards, missing } },
      "/readings": { status: 201, body: TRACE },
    });
    draw(<SafeRoom />);
    const field = await screen.findByLabelText("Cord, earth pin to chassis");
    expect(screen.getByLabelText("Dangers")).toHaveTextContent(
      "gave a shockMeanwhile: power, live work.Next, to lift it: earth must pass first",
    );
    fireEvent.change(field, { target: { value: "0.07" } });
    fireEvent.submit(field);
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/readings"))?.body.text).toBe("cord pe 0.07"),
    );
  });

  it("answers a look where that is what lifts a danger next", async () => {
    const danger = {
      hazard: "trip",
      words: "an arc tripped it",
      forbids_power: true,
      forbids: ["power"],
      remedy: "look at it: cord",
      typed: "",
      is_told: true,
      act: ACT,
      asks_door: false,
      look: "cord.look_cord",
    };
    const sent = room({ ...VIEW, hazards: [danger] } as SafeState, taken);
    fireEvent.click(await screen.findByRole("button", { name: "Looked at it: in order" }));
    const look = { kind: "checked", check: "cord.look_cord", outcome: "good" };
    await waitFor(() => expect(sent()[0]).toMatchObject(look));
  });

  it("takes a danger that was only told back, with a reason", async () => {
    const told = {
      hazard: "shock",
      words: "gave a shock",
      forbids_power: true,
      forbids: [],
      remedy: "earth",
      typed: "cord pe ",
      is_told: true,
      act: ACT,
      asks_door: false,
      look: "",
    };
    const events = room({ ...VIEW, hazards: [told] }, taken);
    fireEvent.click(await screen.findByRole("button", { name: "Noted in error" }));
    const because = screen.getByLabelText(/Why it was a slip/);
    expect(screen.getByRole("button", { name: "Remove the danger" })).toBeDisabled();
    fireEvent.change(because, { target: { value: "another machine's" } });
    fireEvent.click(screen.getByRole("button", { name: "Remove the danger" }));
    await waitFor(() =>
      expect(events()).toEqual([{ kind: "noted_in_error", danger: "shock", because: "another machine's" }]),
    );
  });

  it("asks only the plug's two readings while it is in the hand", async () => {
    const hand = [{ ...POINT, id: "dead.ln", title: "No voltage between the plug's pins", is_next: true }];
    room({ ...VIEW, hand });
    expect(await screen.findByLabelText("No voltage between the plug's pins, reads")).toBeInTheDocument();
    expect(screen.queryByLabelText("L to N, reads")).toBeNull();
  });

  it("says until when a proof holds, and that somebody is still here", async () => {
    const events = room({ ...VIEW, job: { ...VIEW.job, safety: "dead" } }, taken);
    fireEvent.click(await screen.findByRole("button", { name: "Still here" }));
    await waitFor(() => expect(events()).toEqual([{ kind: "attended" }]));
  });
});
