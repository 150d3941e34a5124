import { fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Job } from "../../src/api/client";
import { merge } from "../../src/api/hooks";
import { TopStrip } from "../../src/app/TopStrip";
import { CensusSheet } from "../../src/rooms/trace/CensusSheet";
import { Keypad } from "../../src/rooms/trace/Keypad";
import { LinePanel } from "../../src/rooms/trace/LinePanel";
import { draw, HEATER, LEAK, serve, TRACE } from "../render";

const nothing = () => undefined;

beforeEach(() => localStorage.clear());

describe("the census sheet", () => {
  const sheet = (overrides = {}) => (
    <CensusSheet
      trace={TRACE}
      chosen={null}
      onChoose={nothing}
      onTake={nothing}
      onPoints={nothing}
      {...overrides}
    />
  );

  it("says of every line what it reads, should read, and in words what that means", () => {
    draw(sheet());
    const leak = screen.getByText("to earth").closest("tr") as HTMLElement;
    expect(leak).toHaveTextContent("47 kΩ");
    expect(leak).toHaveTextContent("> 300 kΩ");
    expect(leak).toHaveTextContent("six times too low");
    expect(within(leak).getByRole("img", { name: "outside, low" })).toBeInTheDocument();
    expect(within(leak).getByRole("img", { name: "has a note" })).toBeInTheDocument();
    const element = screen.getByText("element").closest("tr") as HTMLElement;
    expect(within(element).getByRole("img", { name: "not asked" })).toBeInTheDocument();
  });

  it("draws a line from several readings under the part whose they are, and nothing is typed into it", () => {
    const drawn = {
      part: "heater",
      title: "windings alike",
      reads: "4.7 Ω, 4.7 Ω, 5.5 Ω",
      should: "within 5 % of their mean",
      verdict: "outside_high" as const,
      remark: "winding W to U: 11 % over their mean of 4.97 Ω",
    };
    const onChoose = vi.fn();
    draw(sheet({ trace: { ...TRACE, comparisons: [drawn] }, onChoose }));
    const row = screen.getByText("windings alike").closest("tr") as HTMLElement;
    expect(row).toHaveTextContent("11 % over their mean");
    expect(within(row).getByRole("img", { name: "outside, high" })).toBeInTheDocument();
    fireEvent.click(row);
    expect(onChoose).not.toHaveBeenCalled();
  });

  it("chooses a line by click and takes it by Enter", () => {
    const onChoose = vi.fn();
    const onTake = vi.fn();
    draw(sheet({ onChoose, onTake }));
    const row = screen.getByText("to earth").closest("tr") as HTMLElement;
    fireEvent.click(row);
    expect(onChoose).toHaveBeenCalledWith("heater.pe");
    fireEvent.keyDown(row, { key: "Enter" });
    expect(onTake).toHaveBeenCalledWith("heater.pe");
  });

  it("links the job sheet in both formats", () => {
    draw(sheet());
    for (const ending of ["csv", "json"]) {
      const link = screen.getByRole("link", { name: ending.toUpperCase() });
      expect(link).toHaveAttribute("href", `/api/jobs/j-1/export.${ending}`);
    }
  });
});

describe("the panel of a line", () => {
  const panel = (overrides = {}) => (
    <LinePanel
      jobId="j-1"
      trace={TRACE}
      line={LEAK}
      onTake={nothing}
      onCorrect={nothing}
      onTakeBack={nothing}
      suspects={undefined}
      onObjective={nothing}
      {...overrides}
    />
  );

  it("keeps every reading in sight, the replaced one too", () => {
    draw(panel());
    const rows = screen.getAllByRole("listitem");
    expect(rows[0]).toHaveTextContent("47 kΩ, alone");
    expect(rows[0]).toHaveTextContent("Duty technician, with Tester, 21 °C");
    expect(rows[1]).toHaveTextContent("470 kΩ replaced");
  });

  it("says what the line is blind to and how it is measured", () => {
    draw(panel({ line: HEATER }));
    expect(screen.getByText("a leak to earth, a bad joint")).toBeInTheDocument();
    expect(screen.getByText(/back panel off/)).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: "Edit" })).toBeNull();
  });

  it("offers the next line, but not the one in question", () => {
    const onTake = vi.fn();
    const { redraw } = draw(panel({ onTake }));
    fireEvent.click(screen.getByRole("button", { name: "Choose this line" }));
    expect(onTake).toHaveBeenCalledWith("heater.element");
    redraw(panel({ line: HEATER }));
    expect(screen.queryByRole("button", { name: "Choose this line" })).toBeNull();
    redraw(panel({ trace: { ...TRACE, next_line: null } }));
    expect(screen.getByText(/Every line that can be asked dead/)).toBeInTheDocument();
  });

  it("hands over the reading that is to be corrected or taken back", () => {
    const onCorrect = vi.fn();
    const onTakeBack = vi.fn();
    draw(panel({ onCorrect, onTakeBack }));
    fireEvent.click(screen.getByRole("button", { name: "Edit" }));
    fireEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(onCorrect).toHaveBeenCalledOnce();
    expect(onTakeBack).toHaveBeenCalledWith("r-1");
  });

  it("keeps a note that could not be stored", async () => {
    serve({
      "/notes": {
        status: 409,
        body: { type: "/problems/stale-revision", detail: "this job has moved on", revision: 8 },
      },
    });
    draw(panel());
    fireEvent.change(screen.getByLabelText("Note on this line"), { target: { value: "dry now" } });
    fireEvent.click(screen.getByRole("button", { name: "Save" }));
    expect(await screen.findByText("this job has moved on")).toBeInTheDocument();
    expect(screen.getByLabelText("Note on this line")).toHaveValue("dry now");
    expect(localStorage.getItem("ohmcensus.lineNote.j-1.heater.pe")).toBe('"dry now"');
  });
});

describe("the top strip", () => {
  const strip = (power: Partial<Job["power"]>) => {
    const told = { ...TRACE.job.power, ...power };
    serve({ "/power": { body: { revision: 7, now: "2026-06-01T10:10:00Z", power: told } } });
    draw(<TopStrip job={{ ...TRACE.job, power: told }} />);
    return screen.getByRole("link", { name: /State of safety/ });
  };
  const past = "2020-01-01T10:00:00Z";

  it.each([
    [{ state: "dead", until: "2199-01-01T10:00:00Z" }, /Dead, proved at .*, until/],
    [{ state: "dead", until: past }, /Not proved dead/],
    [{ state: "not_proved" }, /Not proved dead/],
    [{ state: "live", reason: "volts at the outlet" }, /LIVE: volts at the outlet/],
    [{ state: "live", reason: "volts at the outlet", until: past }, /UNDER VOLTAGE/],
    [{ state: "under_voltage", reason: "it was plugged in" }, /UNDER VOLTAGE/],
  ] as const)("says %j in words, by its own clock too", (power, says) => {
    expect(strip(power)).toHaveTextContent(says);
  });

  it("shouts a voltage that was found", () => {
    strip({ state: "not_proved", shout: "voltage at L to N: 231 V" });
    expect(screen.getByRole("alert")).toHaveTextContent("Voltage at L to N: 231 V. Hands off.");
  });

  it("says that the state is not known while the server is silent", async () => {
    serve({});
    globalThis.fetch = async () => {
      throw new TypeError("no server");
    };
    draw(<TopStrip job={TRACE.job} />);
    expect(await screen.findByRole("alert")).toHaveTextContent("take the machine for live");
    expect(screen.getByRole("link", { name: /State of safety/ })).toHaveTextContent("State not known");
  });
});

describe("the keypad", () => {
  it("types every sign that a reading needs", () => {
    const typed: string[] = [];
    draw(
      <Keypad onSign={(sign) => typed.push(sign)} onErase={nothing} onEnter={nothing} onKeyboard={nothing} />,
    );
    for (const sign of ["0", "1", "9", ".", "k", "M", "µ", "m", "OL", ">", "<"]) {
      fireEvent.click(screen.getByRole("button", { name: sign }));
    }
    expect(typed).toEqual(["0", "1", "9", ".", "k", "M", "µ", "m", "OL", ">", "<"]);
  });
});

describe("a job after a change", () => {
  it("has the changed line in the place of the old one", () => {
    const changed = { ...HEATER, reads: "26 Ω" };
    expect(merge(TRACE, { ...TRACE, lines: [changed] })?.lines).toEqual([changed, LEAK]);
  });
  it("loses a line that is gone and gains one that is new", () => {
    const loose = { ...HEATER, key: "heater.a pump.a" };
    const gained = merge(TRACE, { ...TRACE, keys: [...TRACE.keys, loose.key], lines: [loose] });
    expect(gained?.lines.map((line) => line.key)).toEqual([...TRACE.keys, loose.key]);
    expect(merge(gained ?? undefined, { ...TRACE, lines: [] })?.lines).toHaveLength(2);
  });
  it("is asked for whole where a line is unknown here", () => {
    expect(merge(TRACE, { ...TRACE, keys: [...TRACE.keys, "pump.coil"], lines: [] })).toBeNull();
    expect(merge(undefined, { ...TRACE, lines: [] })).toBeNull();
  });
});
