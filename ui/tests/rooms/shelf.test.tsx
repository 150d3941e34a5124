import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { RepairView } from "../../src/api/repair";
import type { PartsView, ShelfView, SpareView } from "../../src/api/shelf";
import { PartsCard } from "../../src/rooms/repair/PartsCard";
import { SpareCard } from "../../src/rooms/shelf/SpareCard";
import { SpareForm } from "../../src/rooms/shelf/SpareForm";
import { draw } from "../render";

beforeEach(() => localStorage.clear());
afterEach(() => vi.restoreAllMocks());

const SPARE = {
  id: "s-1",
  revision: 1,
  spare: {
    sheet: "fl7-u",
    part: "heater",
    type_number: "FL7-U/2",
    variant: "two tags",
    origin: "salvaged",
    salvaged_from: "Machine 4",
    tested: "insulation good",
    mark: "spare_1",
    place: "Tray 3",
    words: "",
    is_scrapped: false,
    readings: [],
  },
  title: "Heater",
  sheet_title: "Front-loader",
  mark: "spare 1",
  soundness: "partly",
  soundness_words: "measured in part",
  rows: [
    {
      test: "element",
      title: "element",
      should: "25.2–29.4 Ω",
      advice: "",
      reads: "26.4",
      verdict: "inside",
      remark: "blind to a leak",
      by: "Mine",
    },
    {
      test: "pe",
      title: "to earth",
      should: "> 300 kΩ",
      reads: "",
      verdict: "not_asked",
      remark: "",
      by: "",
    },
  ],
  where: "Tray 3",
  job: "",
  is_in: false,
} as unknown as SpareView;
const SHELF = {
  spares: [SPARE],
  sheets: [{ id: "fl7-u", words: "Front-loader (fl7-u)" }],
  parts: { "fl7-u": [{ id: "heater", words: "Heater" }] },
  marks: [{ id: "spare_1", words: "spare 1" }],
} as unknown as ShelfView;

function answering(answer: object) {
  const sent: { method: string; url: string; body: Record<string, unknown> }[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    const request = input as Request;
    const body = request.method === "GET" ? {} : await request.json();
    sent.push({ method: request.method, url: new URL(request.url).pathname, body });
    return new Response(JSON.stringify(answer), { headers: { "Content-Type": "application/json" } });
  });
  return sent;
}

test("a piece tells where it comes from and what it reads, and takes a reading in the hand", async () => {
  const sent = answering(SHELF);
  draw(<SpareCard row={SPARE} view={SHELF} />);
  expect(screen.getByText("Salvaged from Machine 4; tested there: insulation good")).toBeInTheDocument();
  expect(screen.getByText("measured in part")).toBeInTheDocument();
  fireEvent.change(screen.getByLabelText("Reading: to earth"), { target: { value: "299M" } });
  fireEvent.click(screen.getAllByRole("button", { name: "Log" })[1] as HTMLElement);
  await waitFor(() => expect(sent[0]?.url).toBe("/api/shelf/s-1/readings"));
  expect(sent[0]?.body).toMatchObject({ test: "pe", text: "299M" });
});

test("a new piece is kept under an id of its own; where from is asked of a salvaged one", async () => {
  const sent = answering(SHELF);
  draw(<SpareForm view={SHELF} />);
  fireEvent.change(screen.getByLabelText("Comes from"), { target: { value: "salvaged" } });
  fireEvent.change(screen.getByLabelText("From which machine"), { target: { value: "Machine 4" } });
  fireEvent.click(screen.getByRole("button", { name: "Save on the shelf" }));
  await waitFor(() => expect(sent[0]?.method).toBe("PUT"));
  expect(sent[0]?.body).toMatchObject({ part: "heater", origin: "salvaged", salvaged_from: "Machine 4" });
});

const PARTS = {
  job: { id: "j-1" },
  wanted: [
    {
      id: "w-1",
      revision: 3,
      wanted: {
        part: "heater",
        type_number: "FL7-U/2",
        variant: "grey plug",
        offers: [{ source: "Quay store", condition: "new", price: 38.5, days: 2 }],
        chosen: null,
        state: "wanted",
        words: "",
      },
      title: "Heater",
      state_words: "wanted, not ordered",
      price: "38.50",
      days: "2 days",
      spares: [{ spare: SPARE, misfits: ["plug form differs: the piece is for 'two tags'"] }],
    },
  ],
  parts: [{ id: "heater", words: "Heater" }],
  states: [
    { id: "wanted", words: "wanted, not ordered" },
    { id: "ordered", words: "ordered" },
  ],
  conditions: [{ id: "new", words: "new" }],
  type_number: "FL7-U/2",
  variant: "",
} as unknown as PartsView;
const REPAIR = { job: { id: "j-1" }, leader: "heater", is_over: false } as unknown as RepairView;

test("a wish shows the plug that differs, is ordered in one touch, and fits a piece of the shelf", async () => {
  const sent = answering(PARTS);
  draw(<PartsCard sawFail={false} view={REPAIR} />);
  expect(await screen.findByText(/plug form differs/)).toHaveClass("notice");
  fireEvent.change(screen.getByLabelText("Order: Heater"), { target: { value: "ordered" } });
  await waitFor(() => expect(sent.find((row) => row.method === "PUT")?.body).toMatchObject({ revision: 3 }));
  const put = sent.find((row) => row.method === "PUT");
  expect(put?.body).toMatchObject({ state: "ordered", offers: [{ price: "38.50", days: "2" }] });
  fireEvent.click(await screen.findByRole("button", { name: "Fit it: spare 1" }));
  await waitFor(() => expect(sent.find((row) => row.method === "POST")).toBeDefined());
  expect(sent.find((row) => row.method === "POST")?.body).toMatchObject({
    body: { kind: "changed", part: "heater", intervention: "replaced", spare: "s-1" },
  });
});

test("a new wish begins with what the plate says, and is sent as it is typed", async () => {
  const sent = answering({ ...PARTS, wanted: [] });
  draw(<PartsCard sawFail={false} view={REPAIR} />);
  fireEvent.click(await screen.findByRole("button", { name: "Add a wanted part" }));
  expect(await screen.findByLabelText("Type number, exactly")).toHaveValue("FL7-U/2");
  fireEvent.change(screen.getByLabelText("Where"), { target: { value: "Post" } });
  fireEvent.change(screen.getByLabelText("Price"), { target: { value: "24" } });
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  await waitFor(() => expect(sent.find((row) => row.method === "PUT")).toBeDefined());
  expect(sent.find((row) => row.method === "PUT")?.body).toMatchObject({
    part: "heater",
    offers: [{ source: "Post", price: "24" }],
  });
});
