import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, test, vi } from "vitest";
import type { SafeState } from "../../src/api/client";
import type { RepairView } from "../../src/api/repair";
import type { TripView } from "../../src/api/trip";
import { ChangeForm } from "../../src/rooms/repair/ChangeForm";
import { PowerCard } from "../../src/rooms/safe/PowerCard";
import { HazardForm, PanelForm, ReclosedForm, SaidForm, TripForm } from "../../src/rooms/safe/powerForms";
import { AddressBook } from "../../src/rooms/setup/AddressBook";
import { PersonForm } from "../../src/rooms/setup/PersonForm";
import { AfterCulprit } from "../../src/rooms/trip/AfterCulprit";
import { RunForm } from "../../src/rooms/trip/RunForm";
import { RunStory } from "../../src/rooms/trip/RunStory";
import { TriageCard } from "../../src/rooms/trip/TriageCard";
import { EVERY_ROOM, example } from "../examples";
import { draw, serve } from "../render";

const safe = example<SafeState>("safe");
const trip = example<TripView>("trip");
const repair = example<RepairView>("repair");
const JOB = { status: 201, body: safe.job };

beforeEach(() => localStorage.clear());

const pick = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const events = (sent: { path: string; body: Record<string, unknown> }[]) =>
  sent.filter((row) => row.path.endsWith("/events")).map((row) => row.body.body);

describe("what happened", () => {
  test("a cover says what is so, and what touching it notes", () => {
    const send = vi.fn(async () => undefined);
    draw(<PanelForm view={safe} send={send} />);
    const off = safe.panels.find((row) => row.is_off);
    const on = safe.panels.find((row) => !row.is_off);
    press(`${off?.words} is back`);
    press(`${on?.words} is off`);
    expect(send.mock.calls).toEqual([
      [{ kind: "shut", panel: off?.id }],
      [{ kind: "opened", panel: on?.id }],
    ]);
  });

  test("a danger is sent with what was seen", () => {
    const send = vi.fn(async () => undefined);
    draw(<HazardForm send={send} />);
    pick("What", "burnt_smell");
    pick("What you saw, smelt or felt", "brown spot at the plug");
    press("Save the danger");
    expect(send).toHaveBeenCalledWith({
      kind: "hazard_found",
      hazard: "burnt_smell",
      words: "brown spot at the plug",
    });
  });

  test("a trip says which device, at which moment, and whether the machine was in", async () => {
    serve(EVERY_ROOM);
    const send = vi.fn(async () => undefined);
    draw(<TripForm jobId="j-1" send={send} />);
    await screen.findByRole("option", { name: /RCD \(/ });
    pick("Which device", "rcd");
    pick("And the machine was", "out");
    press("Save the trip");
    expect(send).toHaveBeenCalledWith(
      expect.objectContaining({ kind: "tripped", device: "rcd", machine: "out" }),
    );
  });

  test("a device is closed again with the machine out, or in", () => {
    const send = vi.fn(async () => undefined);
    draw(<ReclosedForm send={send} />);
    press("With the machine unplugged");
    expect(send).toHaveBeenCalledWith({ kind: "reclosed", machine: "out" });
  });

  test("a sentence is sent only where one was typed", () => {
    const send = vi.fn(async () => undefined);
    draw(<SaidForm label="Which outlet" act="Save" send={send} />);
    expect(screen.getByRole("button", { name: "Save" })).toBeDisabled();
    pick("Which outlet", "left one");
    press("Save");
    expect(send).toHaveBeenCalledWith("left one");
  });

  test("one form is open at a time, and shuts once it was taken", async () => {
    const sent = serve({ ...EVERY_ROOM, "/events": JOB });
    draw(<PowerCard view={safe} />);
    press("It tripped");
    press("Danger found");
    expect(screen.queryByRole("button", { name: "Save the trip" })).toBeNull();
    press("Save the danger");
    await waitFor(() => expect(screen.queryByRole("button", { name: "Save the danger" })).toBeNull());
    expect(events(sent)).toEqual([{ kind: "hazard_found", hazard: "shock", words: "" }]);
  });

  test("what is refused stays open, with the sentence", async () => {
    const refusal = { type: "", title: "no", status: 403, detail: "no power: it tripped" };
    serve({ ...EVERY_ROOM, "/events": { status: 403, body: refusal } });
    draw(<PowerCard view={safe} />);
    press("Plug in, panels shut");
    expect(await screen.findByText("no power: it tripped")).toBeInTheDocument();
  });
});

describe("a leak test", () => {
  const set = {
    connected: trip.parts.map((row) => row.id).filter((id) => id !== "heater"),
    maybe: [],
    onConnect: vi.fn(),
    onMade: vi.fn(),
  };

  test("is sent with what is connected, as it was typed", async () => {
    const sent = serve({ ...EVERY_ROOM, "/events": JOB });
    draw(<RunForm view={{ ...trip, may_run: "" }} {...set} />);
    pick("Reads, MΩ", ">299");
    press("Save the leak test");
    await waitFor(() =>
      expect(events(sent)[0]).toMatchObject({
        kind: "run_made",
        method: "insulation",
        text: ">299",
        connected: set.connected,
      }),
    );
    await waitFor(() => expect(set.onMade).toHaveBeenCalled());
  });

  test("takes a part off at one touch, perhaps at two, and one part alone at one", () => {
    serve(EVERY_ROOM);
    const onConnect = vi.fn();
    const own = { connected: ["heater", "motor"], maybe: ["pump"], onConnect, onMade: vi.fn() };
    draw(<RunForm view={trip} {...own} />);
    press("Heater");
    press("Cord");
    press(/^Drain pump/);
    press("Only Motor");
    expect(onConnect.mock.calls).toEqual([
      [["motor"], ["pump"]],
      [
        ["heater", "motor"],
        ["pump", "cord"],
      ],
      [["heater", "motor", "pump"], []],
      [["motor"], []],
    ]);
  });

  test("says why it may not be made now", () => {
    serve(EVERY_ROOM);
    const why = "not proved dead: no leak test at 500 V yet";
    draw(<RunForm view={{ ...trip, may_run: why }} {...set} />);
    expect(screen.getByText(why)).toBeInTheDocument();
  });

  test("is taken back, the last one first; lines of Trace are corrected there", async () => {
    const sent = serve({ ...EVERY_ROOM, "/events": JOB });
    draw(<RunStory view={trip} />);
    press("Undo the last leak test");
    const last = trip.runs.filter((row) => !row.is_line).at(-1);
    await waitFor(() => expect(events(sent)).toEqual([{ kind: "run_withdrawn", run: last?.id }]));
  });

  test("of a guilty part leads to Repair, where a change is asked whether it was seen to fail", () => {
    draw(<AfterCulprit view={trip} />);
    expect(screen.getByRole("link", { name: "Go to Repair" })).toHaveAttribute(
      "href",
      `/jobs/${trip.job.id}/repair`,
    );
  });

  test("follows a trip: which device, which moment, what to measure first", () => {
    draw(<TriageCard triage={trip.triage} />);
    for (const row of trip.triage.first) expect(screen.getByText(row)).toBeInTheDocument();
  });
});

test("a change is sent with the part that is named, and whether the fault was seen", async () => {
  const sent = serve({ ...EVERY_ROOM, "/events": JOB });
  const { redraw } = draw(<ChangeForm view={{ ...repair, asks_saw_fail: true }} sawFail={null} />);
  expect(screen.getByLabelText("Part")).toHaveValue(repair.leader);
  pick("What was done", "replaced");
  pick("Which piece is fitted now", "spare 1");
  press("Save the change");
  expect(screen.getByRole("alert")).toHaveTextContent("Say first whether you saw it fail yourself");
  redraw(<ChangeForm view={{ ...repair, asks_saw_fail: true }} sawFail />);
  expect(screen.queryByRole("alert")).toBeNull();
  press("Save the change");
  await waitFor(() =>
    expect(events(sent)[0]).toMatchObject({
      kind: "changed",
      part: repair.leader,
      intervention: "replaced",
      fitted: "spare 1",
      saw_fail: true,
    }),
  );
});

describe("Setup", () => {
  test("an address is added under an address of its own, and edited there", async () => {
    const sent = serve({ ...EVERY_ROOM });
    draw(<AddressBook />);
    await screen.findByText("Places");
    press("Add a place");
    pick("Name of the entry", "Boathouse");
    press("Save the entry");
    await waitFor(() => expect(sent.some((row) => /\/addresses\/[0-9a-f-]+$/.test(row.path))).toBe(true));
    const put = sent.find((row) => /\/addresses\/[0-9a-f-]+$/.test(row.path));
    expect(put?.body).toMatchObject({ kind: "place", name: "Boathouse" });
    expect(put?.path.endsWith(String(put?.body.id))).toBe(true);
  });

  test("a temperature below nought is taken with either minus, a word is told", async () => {
    const settings = example<never>("settings");
    const sent = serve(EVERY_ROOM);
    draw(<PersonForm settings={settings} />);
    const field = screen.getByLabelText(/Temperature at the shelf/);
    fireEvent.change(field, { target: { value: "−4,5" } });
    fireEvent.click(within(field.closest("form") as HTMLElement).getByRole("button", { name: "Save" }));
    await waitFor(() => expect(sent.at(-1)?.body).toMatchObject({ ambient_celsius: -4.5 }));
  });
});
