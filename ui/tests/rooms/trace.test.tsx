import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { merge } from "../../src/api/hooks";
import { Answer } from "../../src/rooms/trace/Answer";
import { CensusSheet } from "../../src/rooms/trace/CensusSheet";
import { Keypad } from "../../src/rooms/trace/Keypad";
import { LinePanel } from "../../src/rooms/trace/LinePanel";
import { QuickLine } from "../../src/rooms/trace/QuickLine";
import { TopStrip } from "../../src/rooms/trace/TopStrip";
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
    expect(screen.queryByRole("button", { name: "Correct" })).toBeNull();
  });

  it("offers the next line, but not the one in question", () => {
    const onTake = vi.fn();
    const { redraw } = draw(panel({ onTake }));
    fireEvent.click(screen.getByRole("button", { name: "Take it" }));
    expect(onTake).toHaveBeenCalledWith("heater.element");
    redraw(panel({ line: HEATER }));
    expect(screen.queryByRole("button", { name: "Take it" })).toBeNull();
    redraw(panel({ trace: { ...TRACE, next_line: null } }));
    expect(screen.getByText(/Every line that can be asked dead/)).toBeInTheDocument();
  });

  it("hands over the reading that is to be corrected or taken back", () => {
    const onCorrect = vi.fn();
    const onTakeBack = vi.fn();
    draw(panel({ onCorrect, onTakeBack }));
    fireEvent.click(screen.getByRole("button", { name: "Correct" }));
    fireEvent.click(screen.getByRole("button", { name: "Take back" }));
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
    fireEvent.click(screen.getByRole("button", { name: "Keep the note" }));
    expect(await screen.findByText("this job has moved on")).toBeInTheDocument();
    expect(screen.getByLabelText("Note on this line")).toHaveValue("dry now");
    expect(localStorage.getItem("ohmcensus.note.j-1.heater.pe")).toBe("dry now");
  });
});

describe("the quick line", () => {
  const props = {
    ref: null,
    jobId: "j-1",
    trace: TRACE,
    preview: null,
    onPreview: nothing,
    correction: null,
    onCorrected: nothing,
    onLogged: nothing,
    said: "",
    onSaid: nothing,
  };
  const field = () => screen.getByLabelText("Type a part and a reading");
  const after = { ...TRACE, lines: [{ ...HEATER, verdict: "inside", reads: "26 Ω" }] };

  it("sends the same reading with the same id until it is stored", async () => {
    const sent = serve({ "/preview": { body: {} } });
    draw(<QuickLine {...props} />);
    fireEvent.change(field(), { target: { value: "heater 26" } });
    fireEvent.keyDown(field(), { key: "Enter" });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    expect(await screen.findByText(/The server does not answer/)).toBeInTheDocument();
    expect(field()).toHaveValue("heater 26");
    const first = sent.find((row) => row.path.endsWith("/readings"));
    const again = serve({ "/preview": { body: {} }, "/readings": { status: 201, body: after } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() => expect(field()).toHaveValue(""));
    expect(again.find((row) => row.path.endsWith("/readings"))?.body.id).toBe(first?.body.id);
  });

  it("puts a reading on top of a newer revision once", async () => {
    const stale = {
      status: 409,
      body: { type: "/problems/stale-revision", detail: "moved on", revision: 9 },
    };
    const sent = serve({ "/preview": { body: {} }, "/readings": [stale, { status: 201, body: after }] });
    draw(<QuickLine {...props} />);
    fireEvent.change(field(), { target: { value: "heater 26" } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() => expect(field()).toHaveValue(""));
    const rows = sent.filter((row) => row.path.endsWith("/readings")).map((row) => row.body);
    expect(rows.map((row) => row.revision)).toEqual([1, 9]);
    expect(rows[0]?.id).toBe(rows[1]?.id);
  });

  it("says which reading a correction replaces", async () => {
    const sent = serve({ "/preview": { body: {} }, "/readings": { status: 201, body: after } });
    draw(<QuickLine {...props} correction={{ readingId: "r-1", reads: "47 kΩ" }} />);
    expect(screen.getByText(/Correcting/)).toHaveTextContent("47 kΩ");
    fireEvent.change(field(), { target: { value: "heater pe 470k" } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() =>
      expect(sent.find((row) => row.path.endsWith("/readings"))?.body.supersedes).toBe("r-1"),
    );
  });

  it("shows what is wrong where it is typed, and keeps it over a reload", async () => {
    serve({
      "/preview": { body: {} },
      "/readings": {
        status: 422,
        body: { type: "/problems/input", detail: "no 'heeter' on this sheet: heater?" },
      },
    });
    const { unmount } = draw(<QuickLine {...props} />);
    fireEvent.change(field(), { target: { value: "heeter 26" } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    expect(await screen.findByText("no 'heeter' on this sheet: heater?")).toBeInTheDocument();
    unmount();
    draw(<QuickLine {...props} />);
    expect(field()).toHaveValue("heeter 26");
  });

  it("names the meter only where one was chosen", async () => {
    const sent = serve({ "/preview": { body: {} }, "/readings": { status: 201, body: after } });
    draw(<QuickLine {...props} />);
    fireEvent.change(screen.getByLabelText("Meter in hand"), { target: { value: "appliance-tester" } });
    fireEvent.change(field(), { target: { value: "heater pe 40M" } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() => expect(sent.at(-1)?.body.meter).toBe("appliance-tester"));
  });
});

describe("what the quick line answers", () => {
  const answer = (overrides = {}) => (
    <Answer
      text="heater 26"
      preview={null}
      problem=""
      said=""
      isSaving={false}
      onOffer={nothing}
      {...overrides}
    />
  );

  it("is the judgement before anything is stored", () => {
    const preview = {
      heading: "Heater · element",
      reads: "26 Ω",
      error_text: "± 0.5 Ω",
      verdict: "inside",
      sentence: "inside 25.2–29.4 Ω",
      meter: "Multimeter",
    };
    draw(answer({ preview }));
    expect(screen.getByRole("status")).toHaveTextContent(
      "Heater · element · 26 Ω ± 0.5 Ω Multimeterinside 25.2–29.4 Ω",
    );
  });

  it("is the names that a beginning may become", () => {
    const onOffer = vi.fn();
    draw(
      answer({
        text: "h",
        preview: { completions: ["heater ", "harness "], problem: "more than one" },
        onOffer,
      }),
    );
    fireEvent.click(screen.getByRole("button", { name: "harness" }));
    expect(onOffer).toHaveBeenCalledWith("harness ");
  });

  it("is the problem, before all else", () => {
    draw(answer({ problem: "no 'heeter'", said: "Logged" }));
    expect(screen.getByRole("status")).toHaveTextContent("no 'heeter'");
  });

  it("is what was logged once the line is empty", () => {
    draw(answer({ text: "", said: "Heater, element: 26 Ω" }));
    expect(screen.getByRole("status")).toHaveTextContent("Heater, element: 26 Ω");
  });
});

describe("the top strip", () => {
  it.each([
    ["dead", "", /Dead, proved/],
    ["not_proved", "", /Not proved dead/],
    ["live", "volts at the outlet", /LIVE: volts at the outlet/],
  ] as const)("says %s in words", (safety, reason, says) => {
    draw(
      <TopStrip
        trace={{ ...TRACE, job: { ...TRACE.job, safety, safety_reason: reason } }}
        onSafety={nothing}
      />,
    );
    expect(screen.getByRole("button", { name: /State of safety/ })).toHaveTextContent(says);
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
