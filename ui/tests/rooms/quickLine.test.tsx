import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Answer } from "../../src/rooms/trace/Answer";
import { QuickLine } from "../../src/rooms/trace/QuickLine";
import { draw, HEATER, serve, TRACE } from "../render";

const nothing = () => undefined;

beforeEach(() => localStorage.clear());

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
      jobId="j-1"
      text="heater 26"
      preview={null}
      problem=""
      said=""
      isSaving={false}
      onOffer={nothing}
      onOverride={nothing}
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
