import { act, fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Intake } from "../../src/api/client";
import { IntakeRoom } from "../../src/rooms/intake/IntakeRoom";
import { draw, serve, TRACE } from "../render";

const OUTLET = {
  key: "outlet.ln",
  typed: "outlet ln ",
  part_title: "Outlet",
  title: "line to neutral",
  should: "207–253 V, from the supply",
  reads: "",
  verdict: null,
  sentence: "",
  is_at_plug: false,
  is_running: false,
};
const CHECK = {
  id: "drain_filter",
  title: "Drain filter",
  how: "Tray under it",
  ends_with: "The drain filter was blocked: cleaned, it drains.",
  outcome: null,
  words: "",
};
const VIEW: Intake = {
  job: { ...TRACE.job, ended: null },
  intake_revision: 3,
  complaint: {
    words: "trips",
    symptoms: ["trips"],
    device: "rcd",
    moment: "heating",
    tried: [],
    alterations: [],
  },
  plate: {
    type_number: "X/2",
    serial: "",
    volts: 230,
    hertz: null,
    watts: null,
    protection_class: "",
    variants: "",
  },
  as_sheet: {
    type_number: "",
    serial: "",
    volts: 230,
    hertz: 50,
    watts: 2200,
    protection_class: "I",
    variants: "",
  },
  remarks: [],
  asks_shock: false,
  symptoms: [
    { id: "trips", words: "trips" },
    { id: "no_heat", words: "no heat" },
  ],
  devices: [
    { id: "rcd", words: "RCD" },
    { id: "fuse", words: "fuse" },
  ],
  moments: [
    { id: "heating", words: "when heat is called" },
    { id: "start", words: "on pressing start" },
  ],
  hand: [],
  outside: [
    OUTLET,
    { ...OUTLET, key: "cord.l", typed: "cord l inhand ", part_title: "Cord", is_at_plug: true },
  ],
  outlet: { finding: "incomplete", words: "Three voltages tell polarity and earth.", ends_with: "" },
  checks: [CHECK],
  van: { parts: [{ title: "Heater", weight: 0.5, because: ["trips"] }], tools: ["torch"] },
  visits: [
    {
      id: "j-0",
      opened_at: "2026-05-01T10:00:00Z",
      complaint: "no start",
      ended: "new lock",
      found: ["Lock: OL"],
    },
  ],
  photos: [],
};
const SHEETS = {
  body: { sheets: [{ id: "fl7-u", title: "Front-loader", supply: "", watts: 1, is_own: false }] },
};

function room(view: Intake = VIEW, more: Parameters<typeof serve>[0] = {}) {
  const sent = serve({
    "/sheets": SHEETS,
    "/jobs": { body: { jobs: [] } },
    ...more,
    "/intake": { body: view },
  });
  draw(<IntakeRoom />);
  return sent;
}

it("a current of a step stands under what runs, never under the machine unplugged", async () => {
  const running = { ...OUTLET, key: "outlet.fill", title: "current in the step fill", is_running: true };
  room({ ...VIEW, outside: [...VIEW.outside, running] });
  const line = await screen.findByText("current in the step fill");
  const heads = screen.getAllByRole("heading", { level: 3 });
  const above = heads.filter((head) => head.compareDocumentPosition(line) & Node.DOCUMENT_POSITION_FOLLOWING);
  expect(above.at(-1)).toHaveTextContent("Plugged in, panels shut: what it draws");
});
it("of a job that has ended can be read, takes nothing, and opens it again", async () => {
  room({ ...VIEW, job: { ...VIEW.job, ended: "New lock, locks." } });
  expect(await words()).toBeDisabled();
  expect(await words()).toHaveValue("trips");
  for (const name of ["no heat", "Copy this sheet"])
    expect(screen.getByRole("button", { name })).toBeDisabled();
  expect(screen.getByRole("button", { name: "Reopen the job" })).toBeEnabled();
});

const words = () => screen.findByLabelText("In the customer's words");

beforeEach(() => localStorage.clear());

describe("the intake", () => {
  it("keeps by itself what is typed, on the revision that was read", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const sent = room();
    fireEvent.change(await words(), { target: { value: "trips when hot" } });
    expect(screen.getByText("Saving …")).toBeInTheDocument();
    await act(() => vi.advanceTimersByTimeAsync(1000));
    const put = sent.find((row) => row.path.endsWith("/intake") && Object.keys(row.body).length > 0);
    expect(put?.body).toMatchObject({ intake_revision: 3, complaint: { words: "trips when hot" } });
    vi.useRealTimers();
  });

  it("keeps what is typed through a reload, even if the server never answered", async () => {
    room(VIEW, {});
    fireEvent.change(await words(), { target: { value: "typed in the cellar" } });
    const kept = JSON.parse(localStorage.getItem("ohmcensus.intake.j-1") ?? "{}");
    expect(kept.draft.complaint.words).toBe("typed in the cellar");
    expect(kept.base).toBe(3);
  });

  it("asks which device and which moment only where it trips", async () => {
    room();
    await words();
    expect(screen.getByLabelText("Which device went")).toHaveValue("rcd");
    fireEvent.click(screen.getByRole("button", { name: "trips" }));
    expect(screen.queryByLabelText("Which device went")).toBeNull();
    expect(screen.getByRole("button", { name: "no heat" })).toHaveAttribute("aria-pressed", "false");
  });

  it("lists what was tried and what was found altered", async () => {
    room();
    await words();
    fireEvent.change(screen.getByLabelText("What was tried"), { target: { value: "other outlet" } });
    fireEvent.change(screen.getByLabelText("By"), { target: { value: "owner" } });
    fireEvent.click(screen.getByRole("button", { name: "Add: Tried before, and by whom" }));
    expect(screen.getByText("other outlet (owner)")).toBeInTheDocument();
    fireEvent.change(screen.getByLabelText(/Cut wire/), { target: { value: "lid wires joined" } });
    fireEvent.click(screen.getByLabelText("It bypasses an interlock"));
    fireEvent.click(screen.getByRole("button", { name: "Add: Found altered" }));
    expect(
      screen.getByText("lid wires joined: bypassed interlock: danger, lifted in Safe"),
    ).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Remove other outlet (owner)" }));
    expect(screen.queryByText("other outlet (owner)")).toBeNull();
  });

  it("leaves what is no number in the field and does not send it", async () => {
    room();
    await words();
    fireEvent.change(screen.getByLabelText("Volts"), { target: { value: "23o" } });
    expect(screen.getByText("is not a number")).toBeInTheDocument();
    expect(screen.getByLabelText("Volts")).toHaveValue("23o");
    expect(localStorage.getItem("ohmcensus.intake.j-1")).toBeNull();
    fireEvent.change(screen.getByLabelText("Volts"), { target: { value: "231,5" } });
    expect(JSON.parse(localStorage.getItem("ohmcensus.intake.j-1") ?? "{}").draft.plate.volts).toBe(231.5);
  });

  it("takes the figures of the sheet at one touch where the plate reads so, and offers it on a blank plate only", async () => {
    room({ ...VIEW, plate: { ...VIEW.plate, volts: null } });
    await words();
    const asSheet = screen.getByRole("button", {
      name: "As the sheet: 230 V, 50 Hz, 2200 W, class I",
    });
    fireEvent.click(asSheet);
    for (const [label, value] of [
      ["Volts", "230"],
      ["Hertz", "50"],
      ["Watts", "2200"],
      ["Class", "I"],
    ] as const) {
      expect(screen.getByLabelText(label)).toHaveValue(value);
    }
    expect(screen.getByLabelText("Type number")).toHaveValue("X/2");
    expect(asSheet).not.toBeInTheDocument();
  });

  it("shows what is worth taking, and earlier visits with what was found", async () => {
    room();
    await words();
    expect(screen.getByLabelText("Take along")).toHaveTextContent("Heaterexplains trips");
    expect(screen.getByLabelText("Earlier visits")).toHaveTextContent("1 May: no startLock: OL · new lock");
  });
});

describe("the first look", () => {
  it("logs a cord reading as made in the hand and an outlet reading as it is", async () => {
    const sent = room(VIEW, { "/readings": { status: 201, body: TRACE } });
    fireEvent.change(await screen.findByLabelText("Cord, line to neutral"), { target: { value: "0.04" } });
    fireEvent.submit(screen.getByLabelText("Cord, line to neutral"));
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/readings"))?.body.text).toBe("cord l inhand 0.04"),
    );
  });

  it("says why a reading was refused and keeps it in its field", async () => {
    const refused = { status: 422, body: { type: "/problems/input", detail: "'0..4' is not a reading" } };
    room(VIEW, { "/readings": refused });
    const field = await screen.findByLabelText("Outlet, line to neutral");
    fireEvent.change(field, { target: { value: "0..4" } });
    fireEvent.submit(field);
    expect(await screen.findByRole("alert")).toHaveTextContent("'0..4' is not a reading");
    expect(field).toHaveValue("0..4");
  });

  it("notes a bad check, and offers to end the job there", async () => {
    const sent = room(
      { ...VIEW, checks: [{ ...CHECK, outcome: "bad" }] },
      { "/events": { status: 201, body: VIEW.job } },
    );
    fireEvent.change(await screen.findByLabelText("What you saw: Drain filter"), {
      target: { value: "a sock" },
    });
    fireEvent.click(screen.getByRole("button", { name: "Save" }));
    await waitFor(() => expect(sent.some((row) => row.path.endsWith("/events"))).toBe(true));
    const ends = screen.getAllByRole("button", { name: "End the job here" });
    fireEvent.click(ends[0] as HTMLElement);
    expect(screen.getByLabelText("Why it ends")).toHaveValue(CHECK.ends_with);
    const events = sent.filter((row) => row.path.endsWith("/events")).map((row) => row.body.body);
    expect(events).toEqual([{ kind: "checked", check: "drain_filter", outcome: "bad", words: "a sock" }]);
  });

  it("opens an ended job again", async () => {
    const ended = { ...VIEW, job: { ...VIEW.job, ended: "socket dead" } };
    const sent = room(ended, { "/events": { status: 201, body: VIEW.job } });
    fireEvent.click(await screen.findByRole("button", { name: "Reopen the job" }));
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/events"))?.body.body).toEqual({ kind: "reopened" }),
    );
  });
});
