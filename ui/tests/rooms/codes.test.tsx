import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Codes, SchemeView } from "../../src/api/client";
import { CodesRoom } from "../../src/rooms/codes/CodesRoom";
import { draw, serve, TRACE } from "../render";

const ROW: SchemeView = {
  id: "lamps",
  kind: "lamp_row",
  title: "Row of four",
  look: "Above the knob.",
  lamps: ["Wash", "Rinse", "Spin", "End"],
  weights: [1, 2, 4, 8],
  marker: "",
  frames: 1,
  groups: 0,
  meanings: [{ code: "5", words: "no water", suspects: { valve: 0.5 } }],
};
const FRAMES: SchemeView = {
  ...ROW,
  id: "halves",
  title: "Two pictures",
  marker: "Lock lamp",
  frames: 2,
  meanings: [],
};
const BLINKS: SchemeView = {
  ...ROW,
  id: "blinks",
  title: "Flashes",
  lamps: [],
  weights: [],
  frames: 0,
  groups: 2,
  meanings: [],
};
const VIEW: Codes = {
  job: TRACE.job,
  schemes: [ROW, FRAMES, BLINKS],
  sequences: [
    {
      id: "mode",
      title: "Service mode",
      before: "Knob to OFF.",
      settle_s: 60,
      clicks: ["right", "left"],
      beat_s: 0.8,
      window_s: 7,
      success: "All flash.",
      leave: "Hold START.",
      leave_hold_s: 3,
      erases_on_leaving: true,
      times_out_min: 5,
      tried: 0,
      is_in: false,
    },
  ],
  cycles: [
    {
      id: "test",
      title: "Self-test",
      begun_at: "",
      steps: [
        {
          id: "lock",
          title: "Locks",
          shortest_s: 2,
          longest_s: 8,
          parts: ["Lock"],
          step_code: 6,
          lit: "0110",
          outcome: null,
        },
      ],
      next_step: "lock",
      points_at: [],
      shown_to_work: [],
      sentence: "",
    },
  ],
  read: [],
  no_power: "",
};
const DECODED = {
  scheme: "lamps",
  pattern: "0101",
  code: "5",
  is_nothing: false,
  words: "no water",
  suspects: [{ part: "valve", title: "Valve", weight: 0.5 }],
};
const ATTEMPT = {
  hint: "start",
  counted: 0,
  of: 2,
  next_direction: "right",
  time_left_s: 6,
  sentence: "Click 1 of 2: to the right",
  is_over: false,
};

function room(view: Codes = VIEW, more: Parameters<typeof serve>[0] = {}) {
  const sent = serve({
    "/codes/decode": { body: DECODED },
    "/codes/coach": { body: ATTEMPT },
    "/codes": { body: view },
    "/events": { status: 201, body: TRACE.job },
    ...more,
  });
  draw(<CodesRoom />);
  return (ending: string) => sent.filter((row) => row.path.endsWith(ending)).map((row) => row.body);
}

beforeEach(() => localStorage.clear());

describe("what the lamps say", () => {
  it("asks for the code with every lamp and writes the list down in order", async () => {
    const sent = room();
    expect(await screen.findByRole("note")).toHaveTextContent("Read the codes before any test");
    fireEvent.click(screen.getByRole("button", { name: /^Rinse/ }));
    fireEvent.click(screen.getByRole("button", { name: /^End/ }));
    await waitFor(() => expect(sent("/decode").at(-1)).toEqual({ scheme: "lamps", pattern: "0101" }));
    expect(await screen.findByText("no water", { selector: ".code-says span" })).toHaveTextContent(
      "points at Valve",
    );
    fireEvent.click(screen.getByRole("button", { name: "Add to the list" }));
    expect(localStorage.getItem("ohmcensus.codes.j-1.lamps")).toBe('["5"]');
    fireEvent.click(screen.getByRole("button", { name: "Write them down" }));
    await waitFor(() =>
      expect(sent("/events")[0]?.body).toEqual({ kind: "codes_read", scheme: "lamps", codes: ["5"] }),
    );
  });

  it("notes that none is stored", async () => {
    const sent = room();
    fireEvent.click(await screen.findByRole("button", { name: "None stored" }));
    await waitFor(() => expect(sent("/events")[0]?.body).toMatchObject({ codes: [] }));
  });

  it("shows two pictures of lamps told apart by the marker, and counts as numbers", async () => {
    const sent = room();
    fireEvent.click(await screen.findByRole("button", { name: "Two pictures" }));
    const off = screen.getByRole("group", { name: "Lock lamp off" });
    fireEvent.click(within(off).getByRole("button", { name: /^Wash/ }));
    await waitFor(() => expect(sent("/decode").at(-1)).toEqual({ scheme: "halves", pattern: "0000/1000" }));
    fireEvent.click(screen.getByRole("button", { name: "Flashes" }));
    fireEvent.change(screen.getByLabelText("Flashes, group 1"), { target: { value: "3" } });
    fireEvent.change(screen.getByLabelText("Flashes, group 2"), { target: { value: "2" } });
    await waitFor(() => expect(sent("/decode").at(-1)).toEqual({ scheme: "blinks", pattern: "3-2" }));
  });

  it("lights the lamps of a code, or says why none can", async () => {
    const refused = { status: 422, body: { type: "/problems/input", detail: "code 16 cannot be shown" } };
    room(VIEW, { "/codes/decode": [refused, { body: DECODED }, { body: DECODED }] });
    fireEvent.change(await screen.findByLabelText("From code to lamps"), { target: { value: "16" } });
    fireEvent.submit(screen.getByLabelText("From code to lamps"));
    expect(await screen.findByText("code 16 cannot be shown")).toBeInTheDocument();
    fireEvent.submit(screen.getByLabelText("From code to lamps"));
    await waitFor(() =>
      expect(screen.getByRole("button", { name: /^Rinse/ })).toHaveAttribute("aria-pressed", "true"),
    );
  });

  it("says where no power is allowed, and where a type tells no codes", async () => {
    room({ ...VIEW, no_power: "gave a shock: earth must pass first" });
    expect(await screen.findByRole("alert")).toHaveTextContent("No power yet: gave a shock");
  });
});

describe("the coach", () => {
  it("sends each click with its time from the first, whatever the clock of the day does", async () => {
    const now = vi.spyOn(performance, "now").mockReturnValueOnce(1000).mockReturnValue(1800);
    const sent = room();
    await screen.findByText("Click 1 of 2: to the right");
    now.mockReset();
    now.mockReturnValueOnce(5000).mockReturnValue(5800);
    const pad = screen.getByRole("button", { name: "Right" });
    fireEvent.keyDown(pad, { key: "ArrowRight" });
    vi.setSystemTime(new Date("1999-01-01"));
    fireEvent.keyDown(pad, { key: "ArrowLeft" });
    vi.useRealTimers();
    now.mockRestore();
    await waitFor(() => expect(sent("/coach").at(-1)?.clicks).toHaveLength(2));
    expect(sent("/coach").at(-1)?.clicks).toEqual([
      { direction: "right", at_s: 0 },
      { direction: "left", at_s: 0.8 },
    ]);
  });

  it("logs whether the mode came after a good rhythm", async () => {
    const done = {
      ...ATTEMPT,
      hint: "done",
      counted: 2,
      next_direction: null,
      is_over: true,
      sentence: "All 2 clicks.",
    };
    const sent = room(VIEW, { "/codes/coach": { body: done } });
    fireEvent.click(await screen.findByRole("button", { name: "No, nothing" }));
    await waitFor(() =>
      expect(sent("/events")[0]?.body).toEqual({ kind: "entry_tried", sequence: "mode", is_in: false }),
    );
  });

  it("waits while the board charges, and nags to write down once it is in", async () => {
    room({ ...VIEW, sequences: VIEW.sequences.map((row) => ({ ...row, tried: 2, is_in: true })) });
    expect((await screen.findAllByText(/Write the codes down before you leave/))[0]).toBeInTheDocument();
    expect(screen.getByText(/2 attempts logged/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Just plugged in" }));
    expect(screen.getByRole("timer")).toHaveTextContent("wait 60 s");
    fireEvent.click(screen.getByRole("button", { name: "Plugged in for a while" }));
    expect(screen.queryByText(/The board charges/)).toBeNull();
  });
});

describe("the test cycle and the meanings", () => {
  it("is begun before anything can be ticked", async () => {
    const sent = room();
    const passed = await screen.findByRole("button", { name: "Passed" });
    expect(passed).toBeDisabled();
    expect(screen.getByRole("img", { name: "step 6: 0110" })).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Start the test" }));
    await waitFor(() => expect(sent("/events")[0]?.body).toEqual({ kind: "cycle_begun", cycle: "test" }));
  });

  it("ticks a step and says what a failed one points at", async () => {
    const cycles = VIEW.cycles.map((row) => ({
      ...row,
      begun_at: "2026-06-01T10:00:00Z",
      sentence: "Locks: failed. Look at Lock.",
    }));
    const sent = room({ ...VIEW, cycles });
    expect(await screen.findByText("Locks: failed. Look at Lock.")).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Did not happen" }));
    await waitFor(() =>
      expect(sent("/events")[0]?.body).toEqual({
        kind: "cycle_ticked",
        cycle: "test",
        step: "lock",
        outcome: "absent",
      }),
    );
  });

  it("keeps a typed meaning beside the others, with its suspects", async () => {
    const sent = room(VIEW, { "/meanings/lamps": { body: { rows: [] } } });
    fireEvent.change(await screen.findByLabelText("Code"), { target: { value: "9" } });
    fireEvent.change(screen.getByLabelText("Meaning"), { target: { value: "too warm" } });
    fireEvent.change(screen.getByLabelText(/^Suspects/), { target: { value: "heater:0,6; ntc" } });
    fireEvent.click(screen.getByRole("button", { name: "Add" }));
    await waitFor(() =>
      expect(sent("/meanings/lamps")[0]?.rows).toEqual([
        { code: "5", words: "no water", suspects: { valve: 0.5 } },
        { code: "9", words: "too warm", suspects: { heater: 0.6, ntc: 1 } },
      ]),
    );
  });
});
