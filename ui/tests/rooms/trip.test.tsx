import { fireEvent, screen, within } from "@testing-library/react";
import { describe, expect, test, vi } from "vitest";
import type { TripView } from "../../src/api/trip";
import { BracketBar } from "../../src/drawings/BracketBar";
import { PartRows } from "../../src/rooms/trip/PartRows";
import { RunForm } from "../../src/rooms/trip/RunForm";
import { draw } from "../render";

const RUN: TripView["runs"][number] = {
  id: "r-1",
  at: "2026-11-23T10:00:00Z",
  reads: "50 kΩ",
  meter: "Insulation tester",
  connected: ["heater", "board", "lock"],
  maybe: ["motor"],
  from_neutral: ["board"],
  not_reached: ["lock"],
  states: {},
  polarity: null,
  is_doubtful: false,
  is_intermittent: false,
  in_conflict: false,
  to_repeat: false,
  is_line: false,
};
const part = (id: string, title: string): TripView["parts"][number] => ({
  id,
  title,
  state: "open",
  is_presumed: false,
  is_unhealthy: false,
  proved: "at least 28 kΩ",
  limit: "at least 300 kΩ",
  bracket: { lo: 0, hi: 0.7, is_open_above: false },
  has_earth: true,
  is_earth_off: false,
});
const VIEW = {
  job: { id: "j-1" },
  method: "insulation",
  unit: "MΩ",
  parts: [
    part("heater", "Heater"),
    part("motor", "Motor"),
    part("pump", "Drain pump"),
    part("board", "Board"),
    part("lock", "Lock"),
  ],
  runs: [RUN],
  next: null,
  advice: "",
  leads_to: "",
  unhealthy: [],
  is_plug_reversible: true,
  explanations: [],
  conflict: "",
  spread: "",
  refused: "",
  off_first: ["NTC sensor"],
  may_run: "",
  states: { programme: ["off", "heat"] },
} as unknown as TripView;

describe("runs and parts", () => {
  test.each([
    ["Heater", "connected"],
    ["Motor", "perhaps connected"],
    ["Drain pump", "off"],
    ["Board", "connected, reached from N only"],
    ["Lock", "connected, but neither pole reaches it: not tested"],
  ])("%s was %s", (title, state) => {
    draw(<PartRows view={VIEW} onDoubt={() => undefined} />);
    const row = screen.getByText(title).closest("li") as HTMLElement;
    expect(within(row).getByRole("img", { name: state })).toBeInTheDocument();
  });

  test("a run is doubted where it stands", () => {
    const doubt = vi.fn();
    draw(<PartRows view={VIEW} onDoubt={doubt} />);
    fireEvent.click(screen.getByRole("button", { name: "Mark as doubtful" }));
    expect(doubt).toHaveBeenCalledExactlyOnceWith(RUN);
  });

  test.each([
    [false, 1],
    [true, 0],
  ])("an end is drawn where there is one: open above %s", (isOpenAbove, ends) => {
    const bracket = { lo: 0.2, hi: 1, is_open_above: isOpenAbove };
    const { container } = draw(<BracketBar bracket={bracket} state="open" />);
    expect(container.querySelectorAll(".bracket-end")).toHaveLength(ends);
  });
});

describe("a run is entered", () => {
  test("parts go on and off, and it says which plugs come off before 500 V", () => {
    const connect = vi.fn();
    draw(
      <RunForm
        view={VIEW}
        connected={["heater", "motor"]}
        maybe={[]}
        onConnect={connect}
        onMade={() => undefined}
      />,
    );
    fireEvent.click(screen.getByRole("button", { name: "Motor" }));
    expect(connect).toHaveBeenLastCalledWith(["heater"], []);
    fireEvent.click(screen.getByRole("button", { name: "Drain pump" }));
    expect(connect).toHaveBeenLastCalledWith(["heater", "motor"], ["pump"]);
    expect(screen.getByText(/NTC sensor/)).toBeInTheDocument();
    expect(screen.queryByText("Plug")).toBeNull();
    expect(screen.getByRole("button", { name: "Save the leak test" })).toBeDisabled();
  });

  test("a current asks for the way round of the plug", () => {
    draw(
      <RunForm
        view={{ ...VIEW, method: "leakage", unit: "mA", may_run: "a leakage run needs power" }}
        connected={["heater"]}
        maybe={[]}
        onConnect={() => undefined}
        onMade={() => undefined}
      />,
    );
    expect(screen.getByRole("button", { name: "as found" })).toHaveAttribute("aria-pressed", "true");
    expect(screen.getByText("a leakage run needs power")).toBeInTheDocument();
  });

  test("nobody is asked to turn a plug that goes in one way only", () => {
    draw(
      <RunForm
        view={{ ...VIEW, method: "leakage", unit: "mA", is_plug_reversible: false }}
        connected={["heater"]}
        maybe={[]}
        onConnect={() => undefined}
        onMade={() => undefined}
      />,
    );
    expect(screen.queryByText("Plug")).toBeNull();
    expect(screen.getByText(/This plug goes in one way only/)).toBeInTheDocument();
  });

  test("what was typed in Trace is a run here and is corrected there", () => {
    draw(<PartRows view={{ ...VIEW, runs: [{ ...RUN, is_line: true }] }} onDoubt={() => undefined} />);
    expect(screen.queryByRole("button", { name: "Mark as doubtful" })).toBeNull();
    expect(screen.getAllByText("typed in Trace").length).toBeGreaterThan(0);
  });
});
