import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Job, Line, Trace } from "../../src/api/client";
import type { SuspectsView } from "../../src/api/suspects";
import { TopStrip } from "../../src/app/TopStrip";
import { PartPanel } from "../../src/rooms/trace/PartPanel";
import { PartsOverview } from "../../src/rooms/trace/PartsOverview";
import { SideColumn } from "../../src/rooms/trace/SideColumn";
import { example } from "../examples";
import { draw, HEATER, serve, TRACE } from "../render";

const nothing = () => undefined;

beforeEach(() => localStorage.clear());

const suspects = example<SuspectsView>("suspects");

describe("the machine as one line a part", () => {
  const overview = (overrides = {}) => (
    <PartsOverview
      trace={TRACE}
      suspects={undefined}
      shown="heater"
      asked="heater.element"
      onChoose={nothing}
      onPoints={nothing}
      onLadder={nothing}
      {...overrides}
    />
  );

  it("says of every part how many lines were asked, the worst reading, and what that means", () => {
    const onChoose = vi.fn();
    draw(overview({ onChoose }));
    const row = screen.getByRole("button", { name: /Heater/ });
    expect(within(row).getByRole("img", { name: "1 of 2 asked, 1 outside, low" })).toBeInTheDocument();
    expect(row).toHaveTextContent("47 kΩ");
    expect(row).toHaveTextContent("outside, low: should read > 300 kΩ");
    fireEvent.click(row);
    expect(onChoose).toHaveBeenCalledWith(TRACE.parts[0]);
  });

  it("draws who is suspected, of all parts that the suspects name", () => {
    const leading = suspects.suspects[0] as SuspectsView["suspects"][number];
    const part = { id: leading.part, title: leading.title, lines: [], worst: null, outside: 0 };
    draw(overview({ trace: { ...TRACE, parts: [part] }, suspects }));
    expect(screen.getByTitle(`Suspected: ${Math.round(100 * leading.chance)} %`)).toBeInTheDocument();
  });

  it("has parts that are only looked at on one line, and points that no test names last", () => {
    const pair: Line = { ...HEATER, key: "a b", part: "", part_title: "Two points", title: "a to b" };
    const bad = { id: "belt", title: "Drive belt", outcome: "bad" as const };
    const more = { ...TRACE, lines: [...TRACE.lines, pair], looked: [...TRACE.looked, bad] };
    draw(overview({ trace: more }));
    expect(screen.getByText(/Only looked at: 2 of 2/)).toHaveTextContent("Drive belt");
    const rows = screen.getAllByRole("button").map((row) => row.textContent);
    expect(rows.findIndex((row) => row?.includes("Two points"))).toBeGreaterThan(
      rows.findIndex((row) => row?.includes("Heater")),
    );
  });
});

describe("the chosen part", () => {
  const panel = (overrides = {}) => (
    <PartPanel
      jobId="j-1"
      trace={TRACE}
      part="heater"
      chosen={null}
      preview={null}
      suspects={undefined}
      onChoose={nothing}
      onTake={nothing}
      onCorrect={nothing}
      onTakeBack={nothing}
      {...overrides}
    />
  );

  it("says of every line what it reads, should read, and in words what that means", () => {
    draw(panel());
    const leak = screen.getByText("to earth").closest("tr") as HTMLElement;
    expect(leak).toHaveTextContent("47 kΩ");
    expect(leak).toHaveTextContent("> 300 kΩ");
    expect(leak).toHaveTextContent("six times too low");
    expect(within(leak).getByRole("img", { name: "outside, low" })).toBeInTheDocument();
    expect(within(leak).getByRole("img", { name: "has a note" })).toBeInTheDocument();
    const element = screen.getByText("element").closest("tr") as HTMLElement;
    expect(within(element).getByRole("img", { name: "not asked" })).toBeInTheDocument();
  });

  it("draws a line from several readings, and nothing is typed into it", () => {
    const drawn = {
      part: "heater",
      title: "windings alike",
      reads: "4.7 Ω, 4.7 Ω, 5.5 Ω",
      should: "within 5 % of their mean",
      verdict: "outside_high" as const,
      remark: "winding W to U: 11 % over their mean of 4.97 Ω",
    };
    const onChoose = vi.fn();
    draw(
      panel({
        trace: { ...TRACE, comparisons: [drawn, { ...drawn, part: "motor", title: "else" }] },
        onChoose,
      }),
    );
    const row = screen.getByText("windings alike").closest("tr") as HTMLElement;
    expect(row).toHaveTextContent("11 % over their mean");
    expect(within(row).getByRole("img", { name: "outside, high" })).toBeInTheDocument();
    expect(screen.queryByText("else")).toBeNull();
    fireEvent.click(row);
    expect(onChoose).not.toHaveBeenCalled();
  });

  it("chooses a line by click, lets it go by another, and takes it by Enter", () => {
    const onChoose = vi.fn();
    const onTake = vi.fn();
    const { redraw } = draw(panel({ onChoose, onTake }));
    const row = () => screen.getByText("to earth").closest("tr") as HTMLElement;
    fireEvent.click(row());
    expect(onChoose).toHaveBeenLastCalledWith("heater.pe");
    fireEvent.keyDown(row(), { key: "Enter" });
    expect(onTake).toHaveBeenCalledWith("heater.pe");
    redraw(panel({ onChoose, chosen: "heater.pe" }));
    fireEvent.click(row());
    expect(onChoose).toHaveBeenLastCalledWith(null);
  });

  it("keeps every reading of the chosen line in sight, the replaced one too", () => {
    draw(panel({ chosen: "heater.pe" }));
    const rows = screen.getAllByRole("listitem");
    expect(rows[0]).toHaveTextContent("47 kΩ, alone");
    expect(rows[0]).toHaveTextContent("Duty technician, with Tester, 21 °C");
    expect(rows[1]).toHaveTextContent("470 kΩ replaced");
  });

  it("says what the line is blind to and how it is measured", () => {
    draw(panel({ chosen: "heater.element" }));
    expect(screen.getByText("a leak to earth, a bad joint")).toBeInTheDocument();
    expect(screen.getByText(/back panel off/)).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: "Edit" })).toBeNull();
  });

  it("hands over the reading that is to be corrected or taken back", () => {
    const onCorrect = vi.fn();
    const onTakeBack = vi.fn();
    draw(panel({ chosen: "heater.pe", onCorrect, onTakeBack }));
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
    draw(panel({ chosen: "heater.pe" }));
    fireEvent.change(screen.getByLabelText("Note on this line"), { target: { value: "dry now" } });
    fireEvent.click(screen.getByRole("button", { name: "Save" }));
    expect(await screen.findByText("this job has moved on")).toBeInTheDocument();
    expect(screen.getByLabelText("Note on this line")).toHaveValue("dry now");
    expect(localStorage.getItem("ohmcensus.lineNote.j-1.heater.pe")).toBe('"dry now"');
  });
});

describe("beside them", () => {
  it("stands the next line of the sheet until the suspects are worked out", () => {
    serve({ "/outlook": { body: example("outlook") } });
    const onTake = vi.fn();
    const side = (trace: Trace) => (
      <SideColumn jobId="j-1" trace={trace} suspects={undefined} onTake={onTake} onObjective={nothing} />
    );
    const { redraw } = draw(side(TRACE));
    fireEvent.click(screen.getByRole("button", { name: "Choose this line" }));
    expect(onTake).toHaveBeenCalledWith("heater.element");
    redraw(side({ ...TRACE, next_line: null }));
    expect(screen.getByText(/Every line that can be asked dead/)).toBeInTheDocument();
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
    [{ state: "under_voltage", reason: "it was plugged in", is_shut: false }, /UNDER VOLTAGE/],
    [{ state: "under_voltage", reason: "it was plugged in", is_shut: true }, /Plugged in, panels shut/],
  ] as const)("says %j in words, by its own clock too", (power, says) => {
    expect(strip(power)).toHaveTextContent(says);
  });

  it("holds a proof that ends within two minutes, from every room", async () => {
    const soon = new Date(Date.now() + 90_000).toISOString();
    const told = { ...TRACE.job.power, state: "dead" as const, until: soon };
    const sent = serve({
      "/power": { body: { revision: 7, now: new Date().toISOString(), power: told } },
      "/events": { status: 201, body: TRACE.job },
    });
    draw(<TopStrip job={{ ...TRACE.job, power: told }} />);
    fireEvent.click(screen.getByRole("button", { name: "Still here" }));
    await waitFor(() => expect(sent.some((row) => row.body.body)).toBe(true));
    expect(sent.find((row) => row.body.body)?.body.body).toEqual({ kind: "attended" });
    cleanup();
    strip({ state: "dead", until: new Date(Date.now() + 600_000).toISOString() });
    expect(screen.queryByRole("button", { name: "Still here" })).toBeNull();
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
