import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, test, vi } from "vitest";
import type { TripView } from "../src/api/trip";
import { NextBar } from "../src/app/NextBar";
import { TripRoom } from "../src/rooms/trip/TripRoom";
import { example } from "./examples";
import { draw, serve } from "./render";

const OUTLOOK = {
  revision: 7,
  standing: "named",
  named: [{ id: "heater", words: "Heater" }],
  sentence: "",
  next_step: { stage: "repair", words: "Heater: replace the heater", part: "heater", test: "" },
};

describe("the end of every room", () => {
  test("names the part and leads to what is next", async () => {
    serve({ "/outlook": { body: OUTLOOK } });
    draw(<NextBar jobId="j-1" />);
    const way = await screen.findByRole("link", { name: "Next: Heater: replace the heater" });
    expect(way).toHaveAttribute("href", "/jobs/j-1/repair");
    expect(screen.getByText("Named: Heater.")).toBeInTheDocument();
  });

  test("of a job that has ended says that, and nothing is next", async () => {
    const next_step = { stage: "intake", words: "Ended: new heater fitted", part: "", test: "" };
    serve({ "/outlook": { body: { ...OUTLOOK, named: [], next_step } } });
    draw(<NextBar jobId="j-1" isOver />);
    expect(await screen.findByRole("link", { name: "Ended: new heater fitted" })).toBeInTheDocument();
  });

  test("has no way out of the room where it is done", async () => {
    serve({ "/outlook": { body: OUTLOOK } });
    draw(<NextBar jobId="j-1" />, "repair");
    expect(await screen.findByText("Next, here: Heater: replace the heater")).toBeInTheDocument();
    expect(screen.queryByRole("link")).toBeNull();
  });
});

describe("Trip", () => {
  test.each([
    ["insulation", "By insulation tester"],
    ["leakage", "By leakage tester, live"],
  ])("opens by the method of the last leak test: %s", async (method, chip) => {
    const sent = serve({
      "/trip": { body: { ...example<TripView>("trip"), method } },
      "/outlook": { body: OUTLOOK },
    });
    draw(<TripRoom />, "trip");
    expect(await screen.findByRole("region", { name: "Pull next" })).toBeInTheDocument();
    for (const name of ["By insulation tester", "By leakage tester, live"]) {
      expect(screen.getByRole("button", { name })).toHaveAttribute("aria-pressed", String(name === chip));
    }
    expect(sent.filter((row) => row.path.endsWith("/trip"))).toHaveLength(1);
  });
});

describe("a room without an answer", () => {
  const down = { status: 503, body: { type: "", title: "no", status: 503, detail: "the disk is full" } };

  test("says why, and shows itself as soon as it is asked again and answered", async () => {
    const trip = example<TripView>("trip");
    serve({ "/trip": [down, { body: trip }], "/outlook": { body: OUTLOOK } });
    draw(<TripRoom />, "trip");
    expect(await screen.findByRole("alert")).toHaveTextContent("the disk is full");
    fireEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(await screen.findByRole("region", { name: "Pull next" })).toBeInTheDocument();
  });

  test("comes back by itself", async () => {
    serve({ "/trip": [down, { body: example<TripView>("trip") }], "/outlook": { body: OUTLOOK } });
    vi.useFakeTimers({ shouldAdvanceTime: true });
    draw(<TripRoom />, "trip");
    expect(await screen.findByRole("alert")).toBeInTheDocument();
    await vi.advanceTimersByTimeAsync(4_100);
    vi.useRealTimers();
    expect(await screen.findByRole("region", { name: "Pull next" })).toBeInTheDocument();
  });
});
