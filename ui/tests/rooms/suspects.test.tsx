import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Question, SuspectsView } from "../../src/api/suspects";
import { AskNext } from "../../src/rooms/trace/AskNext";
import { SuspectsCard } from "../../src/rooms/trace/SuspectsCard";
import { draw } from "../render";

afterEach(() => vi.restoreAllMocks());

const COIL: Question = {
  test: "pump.coil",
  kind: "test",
  title: "Drain pump, coil",
  why: "Tells Drain pump from the others.",
  minutes: 7.5,
  before: ["Prove it dead", "Front panel off"],
  is_safe_first: true,
  bits: 0.6,
  expects: [{ part: "pump", title: "Drain pump", reads: "over-range", position: 1 }],
  outcomes: [],
  what_ifs: [{ reads: "OL", leads: "Drain pump, certain, 95 %" }],
  also: [],
};
const RUN: Question = {
  ...COIL,
  test: "machine.run",
  kind: "run",
  title: "Run it through",
  expects: [],
  outcomes: [{ id: "drain", words: "fails at drain" }],
};

function sentBodies() {
  const sent: { body: object }[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    sent.push(await (input as Request).json());
    return new Response("{}");
  });
  return sent;
}

test("a reading is taken in the quick line, with what it would read in sight", () => {
  const take = vi.fn();
  draw(<AskNext jobId="j-1" ask={[COIL, RUN]} onTake={take} />);
  expect(screen.getByText("over-range")).toBeInTheDocument();
  expect(screen.getByText("OL")).toBeInTheDocument();
  expect(screen.getByText("Drain pump, certain, 95 %")).toBeInTheDocument();
  fireEvent.click(screen.getByRole("button", { name: "Choose this line" }));
  expect(take).toHaveBeenCalledWith("pump.coil");
});

test.each([
  ["a watched run is answered in place", RUN, "fails at drain", { kind: "run_watched", outcome: "drain" }],
  ["a test left out says why", COIL, "it trips", { kind: "skipped", test: "pump.coil", why: "trips" }],
])("%s", async (_, question, button, body) => {
  const sent = sentBodies();
  draw(<AskNext jobId="j-1" ask={[question]} onTake={vi.fn()} />);
  fireEvent.click(screen.getByText("Skip"));
  fireEvent.click(screen.getByText(button));
  await waitFor(() => expect(sent[0]?.body).toEqual(body));
});

test("a suspect opens to what speaks for and against it, and what ruled it out", () => {
  const view = {
    sentence: "Not settled yet: go on measuring.",
    cured: "It runs through after two changes. Not conclusive.",
    nothing: 0.05,
    alike: ["Heater and Harness: no test left on this sheet tells them apart; none is left."],
    would_change: ["Heater, element: OL, then Heater, 9 of 10"],
    objective: "soonest",
    objectives: [
      { id: "soonest", words: "soonest certain" },
      { id: "cheapest", words: "cheapest expected repair" },
    ],
    suspects: [
      {
        part: "pump",
        title: "Drain pump",
        chance: 0.001,
        words: "ruled out",
        speaks_for: [{ id: "s", title: "Told: no drain", weight: 0.8 }],
        speaks_against: [{ id: "r", title: "Drain pump, coil: 150 Ω", weight: -1.9 }],
        ruled_out_by: "Drain pump, coil: 150 Ω",
        repair: "clear or replace the pump",
        minutes: 25,
        price: 36,
      },
    ],
  } as unknown as SuspectsView;
  const choose = vi.fn();
  draw(<SuspectsCard view={view} onObjective={choose} />);
  fireEvent.click(screen.getByText("Drain pump"));
  expect(screen.getByText("Ruled out by").textContent).toContain("150 Ω");
  expect(screen.getByText("weighs much")).toBeInTheDocument();
  expect(screen.getByText("Nothing found")).toBeInTheDocument();
  expect(screen.getByText(/Not conclusive/)).toBeInTheDocument();
  expect(screen.getByText(/no test left on this sheet/)).toBeInTheDocument();
  expect(screen.getByText(/then Heater, 9 of 10/)).toBeInTheDocument();
  fireEvent.change(screen.getByLabelText("Choose tests for"), { target: { value: "cheapest" } });
  expect(choose).toHaveBeenCalledWith("cheapest");
});
