import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { SheetOutView } from "../../src/api/sheetOut";
import { ImportJobs } from "../../src/rooms/jobs/ImportJobs";
import { CostsCard } from "../../src/rooms/sheetOut/CostsCard";
import { FilesCard } from "../../src/rooms/sheetOut/FilesCard";
import { draw } from "../render";

beforeEach(() => localStorage.clear());
afterEach(() => vi.restoreAllMocks());

const VIEW = {
  job: { id: "j-1" },
  is_signed: false,
  can_label: false,
  costs: {
    kind: "costs_noted",
    minutes: 40,
    hour: 60,
    call_out: 35,
    lines: [{ words: "Heater", amount: 38.5 }],
  },
  is_costed: false,
  total: "113.50",
  photos: [1, 2, 3],
} as unknown as SheetOutView;

function answering(answer: object, status = 200) {
  const sent: unknown[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    sent.push(await (input as Request).text());
    const type = status < 400 ? "application/json" : "application/problem+json";
    return new Response(JSON.stringify(answer), { status, headers: { "Content-Type": type } });
  });
  return sent;
}

test("the proposed costs are corrected and noted; an amount in words is told by its field", async () => {
  const sent = answering({});
  draw(<CostsCard view={VIEW} />);
  fireEvent.change(screen.getByLabelText("Amount 1"), { target: { value: "forty" } });
  fireEvent.click(screen.getByRole("button", { name: "Save the costs" }));
  expect(screen.getByRole("alert")).toHaveTextContent("Amount 1: not an amount.");
  expect(sent).toEqual([]);
  fireEvent.change(screen.getByLabelText("Amount 1"), { target: { value: "40,00" } });
  fireEvent.change(screen.getByLabelText("Minutes of work"), { target: { value: "45" } });
  fireEvent.click(screen.getByRole("button", { name: "Save the costs" }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(JSON.parse(sent[0] as string).body).toMatchObject({
    kind: "costs_noted",
    minutes: 45,
    call_out: 35,
    lines: [{ words: "Heater", amount: 40 }],
  });
});

test("an amount without words is told, and what was typed survives a reload", () => {
  answering({});
  const { unmount } = draw(<CostsCard view={VIEW} />);
  fireEvent.click(screen.getByRole("button", { name: "Add a line" }));
  fireEvent.change(screen.getByLabelText("Amount 2"), { target: { value: "5" } });
  unmount();
  draw(<CostsCard view={VIEW} />);
  fireEvent.click(screen.getByRole("button", { name: "Save the costs" }));
  expect(screen.getByRole("alert")).toHaveTextContent("Line 2: an amount without words.");
});

test.each([
  [false, 0],
  [true, 1],
])("a label is offered only where one may be printed: %s", (can_label, labels) => {
  draw(<FilesCard view={{ ...VIEW, can_label }} />);
  expect(screen.queryAllByRole("link", { name: /Label/ })).toHaveLength(labels);
  expect(screen.getByRole("link", { name: /Archive.*3 photos/ })).toHaveAttribute(
    "href",
    "/api/jobs/j-1/archive.zip",
  );
});

test("a file that is no job is refused in one sentence", async () => {
  answering({ title: "Bad input", status: 422, detail: "job.csv holds readings alone" }, 422);
  draw(<ImportJobs />);
  const file = new File(["x"], "job.csv");
  fireEvent.change(screen.getByLabelText("Import"), { target: { files: [file] } });
  expect(await screen.findByRole("alert")).toHaveTextContent("job.csv holds readings alone");
});

test("jobs that came in are counted", async () => {
  answering({ id: "", is_over: true, problem: "", jobs: ["a", "b"], already: ["c"], photos: 4 }, 201);
  draw(<ImportJobs />);
  fireEvent.change(screen.getByLabelText("Import"), {
    target: { files: [new File(["x"], "all.zip")] },
  });
  expect(await screen.findByRole("status")).toHaveTextContent("2 jobs imported, 1 already here.");
});
