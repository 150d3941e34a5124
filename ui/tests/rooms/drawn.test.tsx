import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { ReactElement } from "react";
import { beforeEach, describe, expect, test } from "vitest";
import type { Codes, Intake, SafeState } from "../../src/api/client";
import type { ProveView } from "../../src/api/proof";
import type { SheetOutView } from "../../src/api/sheetOut";
import type { TripView } from "../../src/api/trip";
import { CodesRoom } from "../../src/rooms/codes/CodesRoom";
import { IntakeRoom } from "../../src/rooms/intake/IntakeRoom";
import { JobsRoom } from "../../src/rooms/jobs/JobsRoom";
import { ProveRoom } from "../../src/rooms/prove/ProveRoom";
import { RepairRoom } from "../../src/rooms/repair/RepairRoom";
import { SafeRoom } from "../../src/rooms/safe/SafeRoom";
import { SetupRoom } from "../../src/rooms/setup/SetupRoom";
import { SheetOutRoom } from "../../src/rooms/sheetOut/SheetOutRoom";
import { ShelfRoom } from "../../src/rooms/shelf/ShelfRoom";
import { TripRoom } from "../../src/rooms/trip/TripRoom";
import { EVERY_ROOM, example } from "../examples";
import { draw, serve } from "../render";

beforeEach(() => localStorage.clear());

const OF_A_JOB: [string, ReactElement, string][] = [
  ["intake", <IntakeRoom key="i" />, "The complaint"],
  ["safe", <SafeRoom key="s" />, "Make it safe"],
  ["codes", <CodesRoom key="c" />, "What the lamps say"],
  ["trip", <TripRoom key="t" />, "Pull next"],
  ["repair", <RepairRoom key="r" />, "Take it out: Heater"],
  ["prove", <ProveRoom key="p" />, "What has to be shown, in this order"],
  ["sheet-out", <SheetOutRoom key="o" />, "What the sheet says"],
];

describe("every room of a job, drawn from what the API answers", () => {
  test.each(OF_A_JOB)("%s has its head, and ends with what is next", async (name, room, head) => {
    serve(EVERY_ROOM);
    draw(room, name);
    expect((await screen.findAllByText(head)).length).toBeGreaterThan(0);
    const end = await screen.findByRole("region", { name: "Next" });
    await waitFor(() => expect(end).toHaveTextContent("Leak test. Pull both heater tags"));
    expect(end).toHaveTextContent("Named: Heater.");
    expect(within(end).getByRole("link")).toHaveAttribute("href", expect.stringMatching(/\/trip$/));
  });

  test.each(OF_A_JOB)("%s says so when the server is silent", async (name, room) => {
    serve({});
    draw(room, name);
    expect(await screen.findByText(/server does not answer|no server/i)).toBeInTheDocument();
  });
});

describe("what the rooms say", () => {
  const trip = example<TripView>("trip");
  const proof = example<ProveView>("proof");
  const out = example<SheetOutView>("sheet-out");
  const safe = example<SafeState>("safe");

  test("Trip shows every leak test with what it read, and each part with what is proved", async () => {
    serve(EVERY_ROOM);
    draw(<TripRoom />, "trip");
    for (const run of trip.runs) expect((await screen.findAllByText(run.reads)).length).toBeGreaterThan(0);
    for (const part of trip.parts) expect(screen.getAllByText(part.title).length).toBeGreaterThan(0);
    expect(screen.getAllByText("guilty")).toHaveLength(
      trip.parts.filter((row) => row.state === "guilty").length,
    );
  });

  test("Trip marks a leak test as doubtful, and takes the last one back", async () => {
    const sent = serve({ ...EVERY_ROOM, "/events": { status: 201, body: trip.job } });
    draw(<TripRoom />, "trip");
    const typed = trip.runs.filter((run) => !run.is_line);
    fireEvent.click((await screen.findAllByRole("button", { name: "Mark as doubtful" }))[0] as HTMLElement);
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/events"))?.body.body).toMatchObject({
        kind: "run_doubted",
        run: typed[0]?.id,
        is_doubtful: true,
      }),
    );
  });

  test("Prove lists every criterion with its state, and what blocks signing off", async () => {
    serve(EVERY_ROOM);
    draw(<ProveRoom />, "prove");
    for (const row of proof.criteria)
      expect((await screen.findAllByText(row.title)).length).toBeGreaterThan(0);
    expect(screen.getAllByText("failed")).toHaveLength(
      proof.criteria.filter((row) => row.state === "bad").length,
    );
    for (const row of proof.blocking) expect(screen.getByText(row)).toBeInTheDocument();
  });

  test("Sheet-out shows the leak tests as the table that proves it", async () => {
    serve(EVERY_ROOM);
    draw(<SheetOutRoom />, "sheet-out");
    const table = await screen.findByRole("table", { name: "Leak tests" });
    expect(within(table).getAllByRole("row")).toHaveLength(out.leak_tests.length + 1);
    for (const row of out.leak_tests) expect(within(table).getByText(row.connected)).toBeInTheDocument();
    expect(screen.getByText(out.found, { exact: false })).toBeInTheDocument();
  });

  test("Safe lists the dangers with what lifts them, and what was done in words", async () => {
    serve(EVERY_ROOM);
    draw(<SafeRoom />, "safe");
    for (const row of safe.hazards)
      expect((await screen.findAllByText(row.words, { exact: false })).length).toBeGreaterThan(0);
    for (const row of safe.records.slice(0, 12)) {
      expect(screen.getAllByText(row.words, { exact: false }).length).toBeGreaterThan(0);
    }
  });

  test("Codes shows each scheme's lamps", async () => {
    serve(EVERY_ROOM);
    draw(<CodesRoom />, "codes");
    const first = example<Codes>("codes").schemes[0];
    expect((await screen.findAllByText(first?.title ?? "none", { exact: false })).length).toBeGreaterThan(0);
  });

  test("Intake holds what was told", async () => {
    serve(EVERY_ROOM);
    draw(<IntakeRoom />, "intake");
    const told = example<Intake>("intake").complaint.words ?? "";
    expect(await screen.findByDisplayValue(told)).toBeInTheDocument();
  });
});

describe("every room of the firm", () => {
  test("Jobs has a card a job, with what is next", async () => {
    serve(EVERY_ROOM);
    draw(<JobsRoom />);
    const jobs = example<{ jobs: { machine: string; next_step: { words: string } }[] }>("jobs").jobs;
    for (const job of jobs) expect((await screen.findAllByText(job.machine)).length).toBeGreaterThan(0);
    for (const job of jobs)
      expect(screen.getAllByText(job.next_step.words, { exact: false }).length).toBeGreaterThan(0);
  });

  test("Shelf lists the pieces", async () => {
    serve(EVERY_ROOM);
    draw(<ShelfRoom />);
    expect(await screen.findByText("Add a piece")).toBeInTheDocument();
    expect(screen.getAllByRole("button", { name: "Edit" }).length).toBeGreaterThan(0);
  });

  test("Setup has who, limits, costs and meters", async () => {
    serve(EVERY_ROOM);
    draw(<SetupRoom />);
    for (const head of ["Who and where", "Limits of leak and earth", "Meters"]) {
      expect(await screen.findByText(head)).toBeInTheDocument();
    }
  });
});
