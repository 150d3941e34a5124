import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { RepairView } from "../../src/api/repair";
import { ReplaceCard } from "../../src/rooms/repair/ReplaceCard";
import { WayBack } from "../../src/rooms/repair/WayBack";
import { draw } from "../render";
import { answering, STRIPPED, VIEW } from "./repairView";

afterEach(() => vi.restoreAllMocks());

type Row = RepairView["way_back"][number];
const ROW: Row = {
  kind: "refit",
  words: "Back panel on",
  detail: "4 × cross M5",
  is_done: false,
  is_next: false,
  test: "",
  part: "",
  step: "",
  panel: "",
};
const step = STRIPPED.strip.steps[0];
const read = { ...ROW, kind: "read", words: "New heater, element", test: "heater.element" } as const;

test("what goes back is ticked whole in one touch, what is read leads to its line", async () => {
  const sent = answering({});
  const rows: Row[] = [
    { ...read, is_done: true },
    { ...ROW, step: step?.id ?? "", is_next: true },
    { ...ROW, words: "Top cover on", panel: "top" },
    { ...read, kind: "whole", words: "Cord, whole machine to earth", test: "cord.insulation" },
  ];
  draw(<WayBack view={{ ...STRIPPED, way_back: rows }} />);
  expect(screen.getByText("1 of 4")).toBeInTheDocument();
  expect(screen.getByRole("link", { name: "Measure" })).toHaveAttribute(
    "href",
    expect.stringContaining("/trace#cord.insulation"),
  );
  const due = screen.getAllByRole("listitem").find((row) => row.getAttribute("aria-current") === "step");
  expect(due).toHaveTextContent("Back panel on");
  fireEvent.click(screen.getByRole("button", { name: "Back panel on" }));
  await waitFor(() =>
    expect(sent[0]).toMatchObject({ body: { kind: "strip_back", step: step?.id, fasteners: step?.count } }),
  );
  fireEvent.click(screen.getByRole("button", { name: "Top cover on" }));
  await waitFor(() => expect(sent.at(-1)).toMatchObject({ body: { kind: "shut", panel: "top" } }));
});

test("where two repairs are right nothing is chosen, and a mended part says how", async () => {
  const sent = answering({ pieces: [] });
  const fits = [
    { id: "replaced", words: "another one fitted" },
    { id: "mended", words: "mended" },
  ];
  const view = { ...VIEW, asks_saw_fail: false, plan: { ...VIEW.plan, fits } };
  draw(<ReplaceCard view={view} sawFail={null} onSawFail={() => undefined} />);
  const card = within(screen.getByRole("region", { name: "What to do" }));
  fireEvent.click(card.getByRole("button", { name: "Save the change" }));
  expect(card.getByRole("alert")).toHaveTextContent("Say what was done");
  fireEvent.click(card.getByRole("button", { name: "Mended" }));
  fireEvent.click(card.getByRole("button", { name: `Mended: ${VIEW.plan.title}` }));
  expect(card.getByRole("alert")).toHaveTextContent("Say how it was mended");
  fireEvent.click(card.getByRole("button", { name: "Replaced" }));
  fireEvent.change(card.getByLabelText("Part number of the new piece"), { target: { value: "OC-7714" } });
  fireEvent.click(card.getByRole("button", { name: `Replaced: ${VIEW.plan.title}` }));
  await waitFor(() =>
    expect(sent.at(-1)).toMatchObject({
      body: { kind: "changed", intervention: "replaced", fitted: "OC-7714" },
    }),
  );
});
