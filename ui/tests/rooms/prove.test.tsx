import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, test, vi } from "vitest";
import type { Criterion, ProveView } from "../../src/api/proof";
import { CriterionRow } from "../../src/rooms/prove/CriterionRow";
import { SignOff } from "../../src/rooms/prove/SignOff";
import { draw, serve, TRACE } from "../render";

afterEach(() => vi.restoreAllMocks());

const SEEN: Criterion = {
  id: "visual",
  title: "Looked at",
  how: "Cord, plug, covers: whole.",
  kind: "seen",
  limit: "",
  basis: "",
  caution: "",
  state: "not_shown",
  reads: "",
  tester: "",
  shown_by: "",
  before: "",
  line: "",
  is_next: true,
  needs: "any",
  needs_words: "",
  stands: true,
  voided: "",
  voided_at: "",
};
const POWERED = { needs: "powered", needs_words: "plugged in, panels shut", stands: true };
const VIEW = {
  job: { id: "j-1" },
  criteria: [SEEN],
  blocking: [],
  ways: [
    { id: "direct", words: "direct: machine standing insulated", ...POWERED },
    { id: "differential", words: "differential: water connected", ...POWERED },
    {
      id: "alternative",
      words: "alternative: dead",
      needs: "dead",
      needs_words: "proved dead",
      stands: false,
    },
  ],
  is_insulation_barred: false,
  serial: "OC-T7",
  calibrated: "2026-03-01",
  is_asked: true,
  outcomes: [
    { id: "heat", words: "fails at heat" },
    { id: "through", words: "runs through" },
  ],
  heats: true,
  is_over: false,
  untested: [{ id: "function", words: "Runs through" }],
  left_as: [
    { id: "unplugged", words: "unplugged" },
    { id: "customer_refused", words: "the customer refused" },
  ],
  is_cut_off: true,
  has_bad_outlet: false,
  done: "",
  unsafe_because: "",
} as unknown as ProveView;

function sent() {
  const bodies: { body: object }[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    bodies.push(await (input as Request).json());
    return new Response("{}", { headers: { "Content-Type": "application/json" } });
  });
  return bodies;
}

describe("a criterion", () => {
  test.each([
    ["Good: Looked at", true],
    ["Bad: Looked at", false],
  ])("that is seen is said in one touch: %s", async (button, isGood) => {
    const bodies = sent();
    draw(<CriterionRow view={VIEW} row={SEEN} />);
    fireEvent.click(screen.getByRole("button", { name: button }));
    await waitFor(() => expect(bodies[0]?.body).toMatchObject({ criterion: "visual", is_good: isGood }));
  });

  test("that is read is typed there and then, and why insulation may not be tested", async () => {
    const row = { ...SEEN, id: "insulation", kind: "reading" as const, line: "cord insulation inhand " };
    const bodies = serve({ "/readings": { status: 201, body: TRACE } });
    draw(<CriterionRow view={VIEW} row={row} />);
    const field = screen.getByLabelText("Looked at, Reads");
    fireEvent.change(field, { target: { value: ">299M" } });
    fireEvent.submit(field);
    await waitFor(() => expect(bodies[0]?.body.text).toBe("cord insulation inhand >299M"));
    fireEvent.click(screen.getByText("Insulation may not be tested here"));
    expect(screen.getByLabelText("Why not")).toBeInTheDocument();
  });

  test("of the run is noted there and then, with the warming where all of it was timed", async () => {
    const bodies = sent();
    draw(<CriterionRow view={VIEW} row={{ ...SEEN, id: "heat", kind: "heat" as const }} />);
    fireEvent.click(screen.getByText("Time the heating"));
    fireEvent.change(screen.getByLabelText("Water, litres"), { target: { value: "10,5" } });
    fireEvent.click(screen.getByRole("button", { name: "runs through" }));
    expect(screen.getByRole("alert")).toHaveTextContent(
      "Water at the start, °C is missing: give all four, or none.",
    );
    fireEvent.change(screen.getByLabelText("Water at the start, °C"), { target: { value: "15" } });
    fireEvent.change(screen.getByLabelText("Water at the end, °C"), { target: { value: "warm" } });
    fireEvent.change(screen.getByLabelText("Minutes of heating"), { target: { value: "9" } });
    fireEvent.click(screen.getByRole("button", { name: "runs through" }));
    expect(screen.getByRole("alert")).toHaveTextContent("Water at the end, °C: not a number.");
    fireEvent.change(screen.getByLabelText("Water at the end, °C"), { target: { value: "40" } });
    fireEvent.click(screen.getByRole("button", { name: "runs through" }));
    await waitFor(() =>
      expect(bodies[0]?.body).toMatchObject({
        outcome: "through",
        heat: { litres: 10.5, from_celsius: 15, to_celsius: 40, minutes: 9 },
      }),
    );
  });

  test("of a current keeps the tester that was named last, and sends its method", async () => {
    const bodies = sent();
    const row = { ...SEEN, id: "current", kind: "current" as const, caution: "Live: touch nothing." };
    draw(<CriterionRow view={VIEW} row={row} />);
    expect(screen.getByText("Live: touch nothing.")).toBeInTheDocument();
    expect(screen.getByLabelText("Tester's number")).toHaveValue("OC-T7");
    fireEvent.change(screen.getByLabelText("Reads"), { target: { value: "0.4 mA" } });
    fireEvent.change(screen.getByLabelText("Method"), { target: { value: "direct" } });
    fireEvent.click(screen.getByRole("button", { name: "Save" }));
    await waitFor(() =>
      expect(bodies[0]?.body).toMatchObject({ criterion: "current", text: "0.4 mA", way: "direct" }),
    );
  });

  test("of a current says how the machine stands for the method chosen, and keeps the method for the next job", () => {
    const row = {
      ...SEEN,
      id: "current",
      kind: "current" as const,
      stands: false,
      needs: "powered" as const,
    };
    const first = draw(<CriterionRow view={VIEW} row={row} />);
    expect(screen.queryByText(/For this the machine is/)).toBeNull();
    fireEvent.change(screen.getByLabelText("Method"), { target: { value: "alternative" } });
    expect(screen.getByText(/For this the machine is/)).toHaveTextContent("proved dead");
    expect(screen.getByRole("link", { name: "Prove it dead" })).toHaveAttribute(
      "href",
      "/jobs/j-1/safe#series",
    );
    expect(screen.queryByRole("button", { name: "It is plugged in, panels shut" })).toBeNull();
    first.unmount();
    const another = { ...VIEW, job: { ...VIEW.job, id: "j-2" } };
    const second = draw(<CriterionRow view={another} row={row} />);
    expect(screen.getByLabelText("Method")).toHaveValue("alternative");
    second.redraw(<CriterionRow view={{ ...another, ways: VIEW.ways.slice(0, 2) }} row={row} />);
    expect(screen.getByLabelText("Method")).toHaveValue("direct");
  });

  test("that comes later asks for nothing yet", () => {
    draw(<CriterionRow view={VIEW} row={{ ...SEEN, kind: "current", is_next: false }} />);
    expect(screen.queryByRole("button")).toBeNull();
  });

  test("that was shown says what it read, by what, and what it read before", () => {
    const row = {
      ...SEEN,
      kind: "reading" as const,
      state: "bad" as const,
      reads: "0.2 MΩ",
      tester: "Tester",
      before: "0.1 MΩ",
    };
    draw(<CriterionRow view={VIEW} row={row} />);
    expect(screen.getByText("failed")).toBeInTheDocument();
    expect(screen.getByText("0.1 MΩ").parentElement).toHaveTextContent("before the change: 0.1 MΩ");
  });
});

describe("how the machine stands for a proof", () => {
  const row = (needs: "cut_off" | "powered", stands: boolean) => ({
    ...SEEN,
    needs,
    stands,
    needs_words: needs === "powered" ? "plugged in, panels shut" : "unplugged",
  });

  test.each([
    ["powered", "It is plugged in, panels shut", "plugged_in"],
    ["cut_off", "It is unplugged, plug in sight", "isolated"],
  ] as const)("%s: it says so, and what is pressed is what is noted", async (needs, label, kind) => {
    const sent = serve({
      "/events": { status: 403, body: { type: "/problems/safety", detail: "no power: it tripped" } },
    });
    draw(<CriterionRow view={VIEW} row={row(needs, false)} />);
    fireEvent.click(screen.getByRole("button", { name: label }));
    expect(await screen.findByText("no power: it tripped")).toBeInTheDocument();
    expect(sent.map((each) => each.body.body)).toEqual([{ kind }]);
  });

  test("nothing is asked where it stands so already", () => {
    draw(<CriterionRow view={VIEW} row={row("powered", true)} />);
    expect(screen.queryByText(/For this the machine is/)).toBeNull();
  });
});

describe("signing off", () => {
  test("is not offered while something blocks it; the label always is", async () => {
    const bodies = sent();
    draw(<SignOff view={{ ...VIEW, blocking: ["no leak is not shown"] }} />);
    expect(screen.getByText("no leak is not shown")).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "End the job as safe" })).toBeDisabled();
    fireEvent.change(screen.getByLabelText("What was done, in one sentence"), { target: { value: "Left." } });
    fireEvent.click(screen.getByRole("button", { name: "Label it unsafe and end the job" }));
    await waitFor(() =>
      expect(bodies[0]?.body).toEqual({
        kind: "ended",
        why: "Left.",
        is_labelled_unsafe: true,
        left_as: "unplugged",
        outlet_reported: false,
      }),
    );
  });

  test("says what is known without typing: what was done, or why it is not safe", async () => {
    localStorage.clear();
    const bodies = sent();
    const known = { ...VIEW, done: "Heater: another one fitted.", unsafe_because: "Lid lock bypassed." };
    draw(<SignOff view={known} />);
    const why = screen.getByLabelText("What was done, in one sentence");
    expect(why).toHaveValue("Heater: another one fitted.");
    expect(screen.getByText(/It says why: Lid lock bypassed\./)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Label it unsafe and end the job" }));
    await waitFor(() =>
      expect(bodies[0]?.body).toMatchObject({ why: "Lid lock bypassed.", is_labelled_unsafe: true }),
    );
    fireEvent.click(screen.getByRole("button", { name: "End the job as safe" }));
    await waitFor(() => expect(bodies[1]?.body).toMatchObject({ why: "Heater: another one fitted." }));
    fireEvent.change(why, { target: { value: "" } });
    expect(why).toHaveValue("");
    expect(screen.queryByText(/It says why/)).toBeNull();
  });

  test("claims nothing where nothing was changed", () => {
    draw(<SignOff view={{ ...VIEW, is_asked: false }} />);
    expect(screen.getByText(/None is claimed either/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "End the job" })).toBeEnabled();
  });

  test("offers the label once the job is over", () => {
    draw(<SignOff view={{ ...VIEW, is_over: true }} />);
    const way = screen.getByRole("link", { name: "Go to Sheet-out: sheet and label" });
    expect(way).toHaveAttribute("href", "/jobs/j-1/sheet-out");
    expect(screen.queryByRole("button", { name: "End the job as safe" })).toBeNull();
  });

  test("asks for the name once, where nobody is named yet, and saves it before the end", async () => {
    const calls = serve({
      "/settings": [{ body: { technician: "", revision: 1 } }, { body: { technician: "Ada", revision: 2 } }],
      "/events": { status: 201, body: TRACE.job },
    });
    draw(<SignOff view={VIEW} />);
    fireEvent.change(await screen.findByLabelText("Your name"), { target: { value: "Ada" } });
    fireEvent.click(screen.getByRole("button", { name: "End the job as safe" }));
    await waitFor(() => expect(calls.some((row) => row.path.endsWith("/events"))).toBe(true));
    const written = calls.filter((row) => Object.keys(row.body).length > 0);
    expect(written.map((row) => row.path.split("/").at(-1))).toEqual(["settings", "events"]);
    expect(written[0]?.body).toEqual({ revision: 1, technician: "Ada" });
    await waitFor(() => expect(screen.queryByLabelText("Your name")).toBeNull());
  });
});
