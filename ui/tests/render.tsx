import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import type { Line, Trace } from "../src/api/client";

/** Draw a room's part with everything that it stands in. */
export function draw(element: ReactElement, room = "room", state: object = {}) {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  });
  const around = (inner: ReactElement) => (
    <MantineProvider env="test">
      <QueryClientProvider client={queries}>
        <MemoryRouter initialEntries={[{ pathname: `/jobs/j-1/${room}`, state }]}>
          <Routes>
            <Route path="/jobs/:jobId/:room" element={inner} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
  const drawn = render(around(element));
  return { ...drawn, redraw: (next: ReactElement) => drawn.rerender(around(next)) };
}

export const HEATER: Line = {
  key: "heater.element",
  part: "heater",
  part_title: "Heater",
  title: "element",
  function: "ohm",
  unit: "ohm",
  state: "machine unplugged, the part's own plug pulled",
  minutes: 1,
  behind: "Back panel off",
  advice: "",
  between: ["Heater, tag 1", "Heater, tag 2"],
  should: "25.2–29.4 Ω",
  basis: "25.2–29.4 Ω, from the plate: 2000 W at 230 V, +5/−10 %",
  with_plug_on: "",
  blind_to: ["a leak to earth", "a bad joint"],
  reaches: ["Heater"],
  verdict: null,
  healthy: null,
  comes_and_goes: false,
  reads: "",
  remark: "",
  sentence: "",
  rejudged: "",
  voided: "",
  voided_at: "",
  asks_door: false,
  at_work: "",
  rest: "",
  reading_id: null,
  typed: "",
  note: "",
  history: [],
  ruler: {
    window_lo: 0.25,
    window_hi: 0.75,
    label_lo: "25.2 Ω",
    label_hi: "29.4 Ω",
    lo: null,
    hi: null,
    pin: null,
  },
};

export const LEAK: Line = {
  ...HEATER,
  key: "heater.pe",
  title: "to earth",
  function: "insulation",
  should: "> 300 kΩ",
  basis: "> 300 kΩ, EN 50678",
  verdict: "outside_low",
  reads: "47 kΩ",
  remark: "six times too low",
  sentence: "outside, low: should read > 300 kΩ",
  reading_id: "r-1",
  typed: "heater pe 47k",
  note: "wet tag",
  history: [
    {
      id: "r-1",
      reads: "47 kΩ",
      text: "heater pe 47k",
      meter: "Tester",
      celsius: 21,
      is_celsius_stated: true,
      condition: "",
      alone: true,
      loose: false,
      override: "",
      at: "2026-06-01T10:10:00Z",
      who: "Duty technician",
      stands: true,
      withdrawn: false,
    },
    {
      id: "r-0",
      reads: "470 kΩ",
      text: "heater pe 470k",
      meter: "Tester",
      celsius: 21,
      is_celsius_stated: true,
      condition: "",
      alone: false,
      loose: false,
      override: "",
      at: "2026-06-01T10:09:00Z",
      who: "",
      stands: false,
      withdrawn: false,
    },
  ],
};

export const TRACE: Trace = {
  job: {
    id: "j-1",
    machine: "Machine 3",
    place: "Wash house",
    sheet: "fl7-u",
    sheet_title: "Front-loader",
    supply: "230 V 50 Hz",
    watts: 2200,
    serial: "",
    complaint: "trips",
    opened_at: "2026-06-01T10:00:00Z",
    changed_at: "2026-06-01T10:10:00Z",
    revision: 7,
    safety: "dead",
    safety_at: "2026-06-01T10:04:00Z",
    safety_until: "2026-06-01T10:20:00Z",
    safety_reason: "",
    safety_lapsed: "",
    stays_connected: "",
    power: {
      state: "dead",
      at: "2026-06-01T10:04:00Z",
      until: "",
      reason: "",
      lapsed: "",
      cut: "unplugged",
      shout: "",
      is_shut: false,
    },
    machine_id: "m-1",
    customer: "",
    type_number: "",
    symptoms: ["trips"],
    hazards: [],
    stages: [{ id: "safe", state: "done", words: "proved dead" }],
    ended: null,
    asked: 1,
    lines: 2,
    outside: 1,
  },
  celsius: 21,
  lines: [HEATER, LEAK],
  parts: [
    { id: "heater", title: "Heater", lines: ["heater.element", "heater.pe"], worst: "heater.pe", outside: 1 },
  ],
  looked: [{ id: "strike", title: "Door strike", outcome: "good" }],
  comparisons: [],
  ruler: { ticks: [], bands: [], pins: [] },
  next_line: "heater.element",
  last_reading: "r-1",
  meters: [
    { id: "multimeter-6000", title: "Multimeter" },
    { id: "appliance-tester", title: "Tester" },
  ],
  points: ["heater.a", "heater.b", "heater.pe"],
};

type Answer = { status?: number; body: unknown };

/** Answer every request of the client from a table of path endings; returns what was sent, the strip's own asking aside. */
export function serve(answers: Record<string, Answer | Answer[]>) {
  const sent: { path: string; body: Record<string, unknown> }[] = [];
  globalThis.fetch = async (input) => {
    const request = input as Request;
    const path = new URL(request.url).pathname;
    if (path.endsWith("/power") && !answers["/power"]) {
      return Response.json({ revision: 7, now: "2026-06-01T10:10:00Z", power: TRACE.job.power });
    }
    const body = request.method === "GET" ? {} : await request.json();
    sent.push({ path, body });
    const found = Object.entries(answers).find(([ending]) => path.endsWith(ending))?.[1];
    const answer = Array.isArray(found) ? found.shift() : found;
    if (!answer) throw new TypeError("no server");
    const status = answer.status ?? 200;
    return new Response(JSON.stringify(answer.body), {
      status,
      headers: { "Content-Type": status < 400 ? "application/json" : "application/problem+json" },
    });
  };
  return sent;
}
