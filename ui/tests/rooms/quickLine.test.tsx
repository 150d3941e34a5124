import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Preview, WayOn } from "../../src/api/client";
import { WaysOn } from "../../src/app/WaysOn";
import { Answer } from "../../src/rooms/trace/Answer";
import { QuickLine } from "../../src/rooms/trace/QuickLine";
import { draw, HEATER, LEAK, serve, TRACE } from "../render";

const nothing = () => undefined;

beforeEach(() => localStorage.clear());

describe("the quick line", () => {
  const props = {
    ref: null,
    jobId: "j-1",
    trace: TRACE,
    preview: null,
    onPreview: nothing,
    line: null,
    isChosen: false,
    correction: null,
    onCorrected: nothing,
    onLogged: nothing,
    onUndo: null,
    said: "",
    onSaid: nothing,
  };
  const field = () => screen.getByLabelText("Type a part and a reading");
  const after = { ...TRACE, lines: [{ ...HEATER, verdict: "inside", reads: "26 Ω", reading_id: "r-1" }] };

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

  it.each([
    { way: "logged", answer: { status: 201, body: after }, line: "" },
    {
      way: "refused",
      answer: { status: 403, body: { type: "/problems/refused", detail: "not proved dead" } },
      line: HEATER.key,
    },
  ])("keeps what is typed and entered before the reading on its way is $way", async ({ answer, line }) => {
    const sent = serve({ "/preview": { body: {} }, "/readings": [answer, { status: 201, body: after }] });
    draw(<QuickLine {...props} line={HEATER} />);
    const enter = (text: string) => {
      fireEvent.change(field(), { target: { value: text } });
      fireEvent.submit(field().closest("form") as HTMLFormElement);
    };
    enter("26");
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    enter("pump 148");
    await waitFor(() => expect(field()).toHaveValue(""));
    const rows = sent.filter((row) => row.path.endsWith("/readings")).map((row) => row.body);
    expect(rows.map((row) => [row.text, row.line])).toEqual([
      ["26", HEATER.key],
      ["pump 148", line],
    ]);
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

  it("gives a bare reading to the line in question, which does not move while one types", async () => {
    const sent = serve({ "/preview": { body: {} }, "/readings": { status: 201, body: after } });
    const { redraw } = draw(<QuickLine {...props} line={HEATER} />);
    expect(screen.getByRole("status")).toHaveTextContent("Heater, element 25.2–29.4 Ω");
    fireEvent.change(field(), { target: { value: "26" } });
    redraw(<QuickLine {...props} line={LEAK} />);
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() => expect(field()).toHaveValue(""));
    const reading = sent.find((row) => row.path.endsWith("/readings"))?.body;
    expect(reading).toMatchObject({ text: "26", line: "heater.element" });
    redraw(<QuickLine {...props} line={LEAK} />);
    expect(screen.getByRole("status")).toHaveTextContent("to earth");
    fireEvent.change(field(), { target: { value: "2" } });
    redraw(<QuickLine {...props} line={HEATER} isChosen />);
    fireEvent.change(field(), { target: { value: "26" } });
    fireEvent.submit(field().closest("form") as HTMLFormElement);
    await waitFor(() => expect(sent.at(-1)?.body.line).toBe("heater.element"));
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

describe("a refusal for safety", () => {
  const PROVE: WayOn = {
    id: "prove_dead",
    label: "Prove it dead",
    how: "go",
    where: { room: "safe", at: "series" },
  };
  const BENCH: WayOn = {
    id: "on_the_bench",
    label: "Measured on the bench",
    how: "again",
    with: { loose: true },
  };
  const REASON: WayOn = { id: "give_reason", label: "Log it anyway", how: "again", asks: "override_reason" };
  const PULL: WayOn = {
    id: "pull_plug",
    label: "Pull the plug",
    how: "send",
    event: { kind: "isolated", how: "unplugged" },
    // biome-ignore lint/suspicious/noThenProperty: the name stands in the API
    then: "again",
  };
  const refusedBy = (acts: WayOn[]) => ({ body: { acts, problem: "not proved dead" } });
  const forbidden = (acts: WayOn[]) => ({
    status: 403,
    body: { type: "/problems/safety", detail: "not proved dead", acts },
  });

  it("offers its ways on: going there, the same as made on the bench, or with a reason", () => {
    const again = vi.fn();
    draw(<WaysOn jobId="j-1" acts={[PROVE, BENCH, REASON]} again={again} />);
    expect(screen.getByRole("link", { name: "Prove it dead" })).toHaveAttribute(
      "href",
      "/jobs/j-1/safe#series",
    );
    fireEvent.click(screen.getByRole("button", { name: "Measured on the bench" }));
    expect(again).toHaveBeenLastCalledWith({ loose: true });
    fireEvent.click(screen.getByRole("button", { name: "Log it anyway" }));
    const reason = screen.getByLabelText("Why it is safe");
    fireEvent.keyDown(reason, { key: "Enter" });
    expect(again).toHaveBeenCalledOnce();
    fireEvent.change(reason, { target: { value: "heater lies on the bench" } });
    fireEvent.keyDown(reason, { key: "Enter" });
    expect(again).toHaveBeenLastCalledWith({ override_reason: "heater lies on the bench" });
  });

  it("states what is to be stated, and then sends the refused once more", async () => {
    const sent = serve({ "/events": { status: 201, body: TRACE.job } });
    const again = vi.fn();
    draw(<WaysOn jobId="j-1" acts={[PULL]} again={again} />);
    fireEvent.click(screen.getByRole("button", { name: "Pull the plug" }));
    await waitFor(() => expect(again).toHaveBeenCalledWith({}));
    expect(sent.at(0)?.body.body).toEqual({ kind: "isolated", how: "unplugged" });
  });

  it("logs the same figure again as made on the bench", async () => {
    const after = { ...TRACE, lines: [HEATER] };
    const sent = serve({
      "/preview": refusedBy([PROVE, BENCH]),
      "/readings": [forbidden([PROVE, BENCH]), { status: 201, body: after }],
    });
    const preview = { acts: [PROVE, BENCH], problem: "not proved dead" };
    const line = { line: HEATER, isChosen: true, correction: null };
    const rest = {
      ref: null,
      jobId: "j-1",
      trace: TRACE,
      said: "",
      onSaid: nothing,
      onPreview: nothing,
      onUndo: null,
    };
    draw(
      <QuickLine {...rest} {...line} preview={preview as Preview} onCorrected={nothing} onLogged={nothing} />,
    );
    const field = screen.getByLabelText("Type a part and a reading");
    fireEvent.change(field, { target: { value: "26" } });
    fireEvent.submit(field.closest("form") as HTMLFormElement);
    await waitFor(() => expect(screen.getByRole("status")).toHaveTextContent("not proved dead"));
    expect(field).toHaveValue("26");
    fireEvent.click(screen.getByRole("button", { name: "Measured on the bench" }));
    await waitFor(() => expect(field).toHaveValue(""));
    const readings = sent.filter((row) => row.path.endsWith("/readings")).map((row) => row.body);
    expect(readings.map((row) => [row.text, row.loose])).toEqual([
      ["26", undefined],
      ["26", true],
    ]);
  });
});

describe("what the quick line answers", () => {
  const answer = (overrides = {}) => (
    <Answer
      text="heater 26"
      preview={null}
      problem=""
      said=""
      line={null}
      isSaving={false}
      onUndo={null}
      onOffer={nothing}
      refused={null}
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

  it("offers to undo what was just logged, and nothing else", () => {
    const onUndo = vi.fn();
    const { redraw } = draw(answer({ text: "", said: "Heater, element: 26 Ω, inside", onUndo }));
    fireEvent.click(screen.getByRole("button", { name: "Undo" }));
    expect(onUndo).toHaveBeenCalledOnce();
    redraw(answer({ text: "", said: "Undone" }));
    expect(screen.queryByRole("button", { name: "Undo" })).toBeNull();
    redraw(answer({ said: "Heater, element: 26 Ω, inside", onUndo }));
    expect(screen.queryByRole("button", { name: "Undo" })).toBeNull();
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
