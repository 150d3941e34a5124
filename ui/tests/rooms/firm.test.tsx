import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { JobsRoom } from "../../src/rooms/jobs/JobsRoom";
import { LiveDialog } from "../../src/rooms/safe/LiveDialog";
import { SetupRoom } from "../../src/rooms/setup/SetupRoom";
import { TwoPointsDialog } from "../../src/rooms/trace/TwoPointsDialog";
import { draw, serve, TRACE } from "../render";

const SHEETS = {
  body: { sheets: [{ id: "fl7-u", title: "Front-loader", supply: "230 V 50 Hz", watts: 2200 }] },
};
const METER = {
  id: "multimeter-6000",
  title: "Multimeter",
  functions: { ohm: [{ full_scale: 600, resolution: 0.1, percent: 0.9, digits: 3 }] },
  input_impedance_ohm: 1e7,
  lead_resistance_ohm: 0.1,
  nulled: true,
  over_range_texts: [],
  shows_ol: true,
};
const METERS = { body: { meters: [METER], generic: ["multimeter-6000"] } };
const NEXT = { stage: "trace", words: "Measure the next line of the sheet", part: "", test: "" };
const SETTINGS = { technician: "Duty technician", ambient_celsius: 21, bag: ["multimeter-6000"] };

beforeEach(() => localStorage.clear());

describe("the jobs room", () => {
  it("says how far each job is and what is outside", async () => {
    serve({
      "/jobs": {
        body: {
          jobs: [
            { ...TRACE.job, next_step: NEXT },
            { ...TRACE.job, next_step: NEXT, id: "j-2", machine: "Galley washer", asked: 0, outside: 0 },
          ],
        },
      },
    });
    draw(<JobsRoom />);
    expect(await screen.findByText("1 outside")).toBeInTheDocument();
    expect(screen.getByText("no reading yet")).toBeInTheDocument();
    expect(screen.getAllByRole("link")[0]).toHaveAttribute("href", "/jobs/j-1/trace");
  });

  it("opens a job with one id, however often it is sent", async () => {
    const refused = { status: 422, body: { type: "/problems/input", detail: "no machine sheet 'x'" } };
    const sent = serve({ "/sheets": SHEETS, "/jobs": [{ body: { jobs: [] } }, refused, refused] });
    draw(<JobsRoom />);
    fireEvent.click(await screen.findByRole("button", { name: "New job" }));
    fireEvent.change(screen.getByLabelText("Machine", { selector: "input" }), {
      target: { value: "Laundry 2" },
    });
    fireEvent.change(screen.getByLabelText("Place", { selector: "input" }), {
      target: { value: "Boathouse" },
    });
    expect(await screen.findByRole("radio", { name: /fl7-u/ })).not.toBeChecked();
    fireEvent.click(screen.getByRole("button", { name: "Open the job" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Choose the machine sheet");
    fireEvent.click(screen.getByRole("radio", { name: /fl7-u/ }));
    for (let time = 0; time < 2; time++) {
      fireEvent.click(screen.getByRole("button", { name: "Open the job" }));
      expect(await screen.findByRole("alert")).toHaveTextContent("no machine sheet 'x'");
    }
    await waitFor(() => expect(sent.filter((row) => row.body.machine === "Laundry 2")).toHaveLength(2));
    const ids = sent.filter((row) => row.body.machine === "Laundry 2").map((row) => row.body.id);
    expect(new Set(ids).size).toBe(1);
    expect(screen.getByLabelText("Place", { selector: "input" })).toHaveValue("Boathouse");
  });

  it("says so when the server does not answer", async () => {
    serve({});
    draw(<JobsRoom />);
    expect(
      await screen.findByText(/The server does not answer/, undefined, { timeout: 4000 }),
    ).toBeInTheDocument();
  });
});

describe("the setup room", () => {
  it("keeps the temperature as a number, decimal comma or not", async () => {
    const sent = serve({
      "/meters": METERS,
      "/settings": [{ body: SETTINGS }, { body: { ...SETTINGS, ambient_celsius: 18.5 } }],
    });
    draw(<SetupRoom />);
    fireEvent.change(await screen.findByLabelText(/Temperature/), { target: { value: "18,5" } });
    fireEvent.click(screen.getByRole("button", { name: "Save" }));
    expect(await screen.findByText("Saved")).toBeInTheDocument();
    expect(sent.some((row) => row.body.ambient_celsius === 18.5)).toBe(true);
  });

  it("takes a meter out of the bag and puts it back", async () => {
    const sent = serve({
      "/meters": METERS,
      "/settings": [{ body: SETTINGS }, { body: { ...SETTINGS, bag: [] } }],
    });
    draw(<SetupRoom />);
    fireEvent.click(await screen.findByRole("checkbox", { name: /Multimeter/ }));
    await waitFor(() => expect(sent.find((row) => row.body.bag)?.body.bag).toEqual([]));
  });

  it("copies a generic meter into one's own, under a new id", async () => {
    const sent = serve({
      "/settings": { body: SETTINGS },
      "/meters": [METERS, { status: 201, body: METERS.body }, METERS],
    });
    draw(<SetupRoom />);
    fireEvent.click(await screen.findByRole("button", { name: "Copy" }));
    fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Mine" } });
    fireEvent.change(screen.getByLabelText("ohms, digits"), { target: { value: "5" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the meter" }));
    await waitFor(() => expect(sent.some((row) => row.body.title === "Mine")).toBe(true));
    const kept = sent.find((row) => row.body.title === "Mine")?.body as typeof METER;
    expect(kept.id).toMatch(/^own-/);
    expect(kept.functions.ohm[0]).toEqual({ full_scale: 600, resolution: 0.1, percent: 0.9, digits: 5 });
  });
});

describe("live mode", () => {
  it("is begun with its reason, and what the server refuses is said", async () => {
    const refused = { status: 403, body: { type: "/problems/safety", detail: "no power: water inside" } };
    const sent = serve({
      "/safe": { body: { job: TRACE.job, asks: [{ id: "lid_shut", words: "lid shut" }] } },
      "/events": [refused, { status: 201, body: TRACE.job }],
    });
    const onClose = vi.fn();
    draw(<LiveDialog job={{ ...TRACE.job, safety: "not_proved" }} opened onClose={onClose} />);
    fireEvent.change(await screen.findByLabelText(/What has to be measured/), {
      target: { value: "outlet" },
    });
    fireEvent.click(await screen.findByLabelText("I state: lid shut"));
    fireEvent.click(screen.getByRole("button", { name: "Start" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("no power: water inside");
    fireEvent.click(screen.getByRole("button", { name: "Start" }));
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(sent.find((row) => row.path.endsWith("/events"))?.body.body).toMatchObject({
      kind: "live_begun",
      reason: "outlet",
      minutes: 10,
      says: ["lid_shut"],
    });
  });

  it("is left by the same dialog", async () => {
    const sent = serve({
      "/safe": { body: { job: TRACE.job, asks: [] } },
      "/events": { status: 201, body: TRACE.job },
    });
    draw(<LiveDialog job={{ ...TRACE.job, safety: "live" }} opened onClose={() => undefined} />);
    fireEvent.click(await screen.findByRole("button", { name: "Leave live mode" }));
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/events"))?.body.body).toEqual({ kind: "live_ended" }),
    );
  });
});

describe("a reading between two points", () => {
  it("cannot be logged without both points", async () => {
    draw(<TwoPointsDialog jobId="j-1" trace={TRACE} opened onClose={() => undefined} />);
    expect(await screen.findByRole("button", { name: "Log" })).toBeDisabled();
    expect(screen.getByLabelText("The meter read")).toHaveValue("ohm");
  });
});
