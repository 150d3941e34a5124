import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import type { RepairView } from "../../src/api/repair";
import { NewJobForm } from "../../src/rooms/jobs/NewJobForm";
import { PlanSteps } from "../../src/rooms/repair/PlanSteps";
import { example } from "../examples";
import { draw, serve } from "../render";

beforeEach(() => localStorage.clear());

const repair = example<RepairView>("repair");
const proposal = {
  kind: "strip_step" as const,
  words: "Back panel off",
  fasteners: 4,
  head: "cross",
  size: "M4 x 12",
  kept: "blue lid",
};
type Step = RepairView["plan"]["steps"][number];
const step = (id: string, over: Partial<Step> = {}): Step =>
  ({ id, state: "to_do", step: null, minutes: "3 min", proposal, ...over }) as Step;

function plan(...steps: Step[]) {
  const view = { ...repair, plan: { ...repair.plan, part: "heater", steps, cautions: ["Sharp edges."] } };
  return <PlanSteps view={view} />;
}

describe("the plan of a strip-down", () => {
  const events = (sent: ReturnType<typeof serve>) =>
    sent.filter((row) => row.path.endsWith("/events")).map((row) => row.body.body);

  it("notes a step with what an earlier job told of its fasteners, by one touch", async () => {
    const sent = serve({ "/events": { status: 201, body: {} } });
    draw(plan(step("back"), step("tags", { proposal: { ...proposal, words: "Both heater tags off" } })));
    const rows = screen.getAllByRole("listitem");
    expect(rows[0]).toHaveAttribute("aria-current", "step");
    expect(rows[1]).not.toHaveAttribute("aria-current");
    expect(rows[0]).toHaveTextContent("4 × cross M4 x 12, blue lid");
    fireEvent.click(screen.getByRole("button", { name: "Back panel off" }));
    await waitFor(() => expect(events(sent)).toEqual([proposal]));
    expect(screen.getByText("Sharp edges.")).toBeInTheDocument();
  });

  it("takes what differs, typed once, and says what is no count", async () => {
    const sent = serve({ "/events": { status: 201, body: {} } });
    draw(plan(step("back")));
    fireEvent.click(screen.getByRole("button", { name: /^Edit.*Back panel off/ }));
    const row = within(screen.getByRole("listitem"));
    fireEvent.change(row.getByLabelText(/Fasteners/), { target: { value: "four" } });
    fireEvent.click(row.getByRole("button", { name: "Back panel off" }));
    expect(await screen.findByRole("alert")).toBeInTheDocument();
    expect(events(sent)).toEqual([]);
    fireEvent.change(row.getByLabelText(/Fasteners/), { target: { value: "6" } });
    fireEvent.click(row.getByRole("button", { name: "Back panel off" }));
    await waitFor(() => expect(events(sent)).toEqual([{ ...proposal, fasteners: 6 }]));
  });

  it("says what is off already, and asks for nothing there", () => {
    draw(plan(step("back", { state: "off", step: "s-1" }), step("tags")));
    const rows = screen.getAllByRole("listitem");
    const off = within(rows[0] as HTMLElement);
    expect(off.getByRole("button", { pressed: true })).toBeDisabled();
    expect(off.queryByRole("button", { name: /^Edit/ })).toBeNull();
    expect(rows[1]).toHaveAttribute("aria-current", "step");
  });
});

describe("a new job", () => {
  const SHEETS = {
    body: {
      sheets: [
        { id: "fl7-u", title: "Front-loader, 7 kg", supply: "230 V 50 Hz", is_own: false },
        { id: "of-the-crew", title: "Washer of the crew", supply: "120 V 60 Hz", is_own: true },
      ],
    },
  };
  const MACHINES = { body: { machines: [{ name: "Laundry 2", place: "Boathouse", sheet: "fl7-u" }] } };
  const fill = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label, { selector: "input" }), { target: { value } });

  it("has every type in sight, none chosen, the firm's own by its title alone", async () => {
    const sent = serve({
      "/sheets": SHEETS,
      "/machines": MACHINES,
      "/jobs": { status: 201, body: { id: "j-9" } },
    });
    draw(<NewJobForm onClose={() => undefined} />);
    const types = await screen.findAllByRole("radio");
    expect(types.map((row) => (row as HTMLInputElement).checked)).toEqual([false, false]);
    expect(
      screen.getByRole("radio", { name: /Front-loader, 7 kg\s*fl7-u · 230 V 50 Hz/ }),
    ).toBeInTheDocument();
    const own = screen.getByRole("radio", { name: /Washer of the crew/ });
    expect(own.closest("label")).not.toHaveTextContent("of-the-crew");
    fill("Machine", "Galley washer");
    fill("Place", "Berth 14");
    fireEvent.click(own);
    expect(own).toBeChecked();
    fireEvent.click(screen.getByRole("button", { name: "Open the job" }));
    await waitFor(() =>
      expect(sent.at(-1)?.body).toMatchObject({ machine: "Galley washer", sheet: "of-the-crew" }),
    );
  });

  it("asks for no type of a machine that is known", async () => {
    serve({ "/sheets": SHEETS, "/machines": MACHINES });
    draw(<NewJobForm onClose={() => undefined} />);
    expect(await screen.findAllByRole("radio")).toHaveLength(2);
    fill("Machine", "Laundry 2");
    fill("Place", "Boathouse");
    await waitFor(() => expect(screen.queryAllByRole("radio")).toHaveLength(0));
  });
});
