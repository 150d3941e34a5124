import { act, fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, test, vi } from "vitest";
import type { HouseView, TripView } from "../src/api/trip";
import { useAsk } from "../src/api/useAsk";
import { figure } from "../src/app/figure";
import { Keys, useRoomKeys } from "../src/app/keys";
import { useForm } from "../src/app/useForm";
import { WaysOn } from "../src/app/WaysOn";
import { NotAllowed } from "../src/rooms/prove/NotAllowed";
import { CostsForm } from "../src/rooms/setup/CostsForm";
import { HouseForm } from "../src/rooms/trip/HouseForm";
import { RunLine } from "../src/rooms/trip/RunLine";
import { draw, serve, TRACE } from "./render";

const HOUSE: HouseView = {
  noted: {
    kind: "circuit_noted",
    supply: "earthed",
    device: "rcd",
    rated_ma: 30,
    wave: "A",
    curve: "B",
    rated_a: 16,
    appliances: [{ name: "Freezer", leakage_ma: 0.7 }],
    plug: null,
  },
  title: "RCD 30 mA",
  budget: "",
  verdict: "",
  chance_lo: null,
  chance_hi: null,
  used: 0.1,
  breaker: "",
  draws: "",
  appliances: [],
  blind_to: [],
  supplies: [{ id: "earthed", words: "mains, neutral earthed" }],
  devices: [{ id: "rcd", words: "RCD" }],
};
const REFUSED = { status: 409, body: { type: "", title: "no", status: 409, detail: "written meanwhile" } };

beforeEach(() => localStorage.clear());

describe("a figure", () => {
  test.each([
    ["12.5", 12.5],
    ["12,5", 12.5],
    [" 4 ", 4],
    ["−3", -3],
    ["1e3", 1000],
  ])("%s is read as %d", (typed, value) => expect(figure(typed)).toBe(value));

  test.each(["", "  ", "twelve", "1.2.3"])("'%s' is none", (typed) => expect(figure(typed)).toBeNaN());
});

function Draft() {
  const [text, change, forget] = useForm("ohmcensus.test", "");
  return (
    <>
      <input aria-label="draft" value={text} onChange={(event) => change(event.currentTarget.value)} />
      <button type="button" onClick={() => forget()}>
        forget
      </button>
    </>
  );
}

describe("what is typed", () => {
  test("outlives its room until it is forgotten", () => {
    const drawn = draw(<Draft />);
    fireEvent.change(screen.getByLabelText("draft"), { target: { value: "26" } });
    drawn.unmount();
    draw(<Draft />);
    expect(screen.getByLabelText("draft")).toHaveValue("26");
    fireEvent.click(screen.getByRole("button", { name: "forget" }));
    expect(screen.getByLabelText("draft")).toHaveValue("");
    expect(localStorage.getItem("ohmcensus.test")).toBeNull();
  });

  test("in a leak test stays when it is refused, and is gone once it was taken", async () => {
    const view = { ...({} as TripView), job: TRACE.job, method: "insulation" as const };
    const understood = { text: "0.3M", words: "the whole machine: 0.3 MΩ", problem: "" };
    const sent = serve({
      "/trip/preview": [{ body: understood }, { body: understood }],
      "/trip/tests": [
        { status: 422, body: { ...REFUSED.body, status: 422 } },
        { status: 201, body: {} },
      ],
    });
    const drawn = draw(<RunLine view={view} />);
    const line = screen.getByRole("textbox", { name: "Leak test in one line" });
    fireEvent.change(line, { target: { value: "0.3M" } });
    fireEvent.click(await screen.findByRole("button", { name: "Save the leak test" }));
    await screen.findByText("written meanwhile");
    expect(line).toHaveValue("0.3M");
    drawn.unmount();
    draw(<RunLine view={view} />);
    expect(screen.getByRole("textbox", { name: "Leak test in one line" })).toHaveValue("0.3M");
    fireEvent.click(await screen.findByRole("button", { name: "Save the leak test" }));
    await waitFor(() =>
      expect(screen.getByRole("textbox", { name: "Leak test in one line" })).toHaveValue(""),
    );
    expect(sent.filter((row) => row.path.endsWith("/trip/tests"))).toHaveLength(2);
  });

  test("of a reason stays until it is stored", async () => {
    serve({ "/events": { status: 422, body: { ...REFUSED.body, status: 422 } } });
    const drawn = draw(<NotAllowed jobId="j-1" />);
    fireEvent.change(screen.getByLabelText("Why not"), { target: { value: "sealed unit" } });
    fireEvent.click(screen.getByRole("button", { name: /^Save/ }));
    await screen.findByText("written meanwhile");
    drawn.unmount();
    draw(<NotAllowed jobId="j-1" />);
    expect(screen.getByLabelText("Why not")).toHaveValue("sealed unit");
  });

  test("of the circuit is sent as figures; a word among them is told and nothing goes", async () => {
    const sent = serve({ "/events": { status: 201, body: TRACE.job } });
    const onKept = vi.fn();
    draw(<HouseForm house={HOUSE} jobId="j-1" onKept={onKept} />);
    fireEvent.change(screen.getByDisplayValue("0.7"), { target: { value: "much" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the circuit" }));
    expect(screen.getByText("Leakage: not a number. Type mA, e.g. 0.7.")).toBeInTheDocument();
    expect(sent).toHaveLength(0);
    fireEvent.change(screen.getByDisplayValue("much"), { target: { value: "0,9" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the circuit" }));
    await waitFor(() => expect(onKept).toHaveBeenCalled());
    expect(sent[0]?.body.body).toMatchObject({
      rated_a: 16,
      appliances: [{ name: "Freezer", leakage_ma: 0.9 }],
    });
  });

  test("of costs takes a decimal comma, and tells a word by its field", async () => {
    const settings = { hour_price: 60, call_out_price: 35, live_penalty: 10, revision: 3 } as never;
    const sent = serve({ "/settings": { body: settings } });
    draw(<CostsForm settings={settings} />);
    const hour = screen.getByLabelText("An hour of work, before tax");
    fireEvent.change(hour, { target: { value: "dear" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the costs" }));
    expect(screen.getByRole("alert")).toHaveTextContent("An hour of work, before tax: not a number.");
    fireEvent.change(hour, { target: { value: "62,5" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the costs" }));
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ hour_price: 62.5 }));
  });
});

function Asking({
  typed,
  ask,
}: {
  typed: string;
  ask: (typed: string, signal: AbortSignal) => Promise<string>;
}) {
  const { answer, problem } = useAsk(typed ? [typed] : null, (signal) => ask(typed, signal));
  return <p>{answer ?? (problem || "nothing")}</p>;
}

describe("asking while something is typed", () => {
  test("asks once for the last of it, and never shows the answer to an older one", async () => {
    const ask = vi.fn(async (typed: string) => `says ${typed}`);
    const drawn = draw(<Asking typed="h" ask={ask} />);
    drawn.redraw(<Asking typed="he" ask={ask} />);
    drawn.redraw(<Asking typed="heater" ask={ask} />);
    expect(await screen.findByText("says heater")).toBeInTheDocument();
    expect(ask).toHaveBeenCalledTimes(1);
    drawn.redraw(<Asking typed="" ask={ask} />);
    expect(screen.getByText("nothing")).toBeInTheDocument();
  });

  test("says why it got no answer", async () => {
    draw(<Asking typed="x" ask={() => Promise.reject(new Error("no such part"))} />);
    expect(await screen.findByText("no such part")).toBeInTheDocument();
  });
});

function Room({ undo }: { undo: () => void }) {
  useRoomKeys({ undo });
  return <input type="text" aria-label="field" />;
}

describe("the keys", () => {
  const press = (key: string, target: Element = document.body) => fireEvent.keyDown(target, { key });

  test("do what the room has of its own, rest while one types, and are listed by ?", async () => {
    const undo = vi.fn();
    draw(
      <Keys jobId="j-1">
        <Room undo={undo} />
      </Keys>,
    );
    press("u");
    expect(undo).toHaveBeenCalledTimes(1);
    press("u", screen.getByLabelText("field"));
    expect(undo).toHaveBeenCalledTimes(1);
    fireEvent.keyDown(document.body, { key: "u", ctrlKey: true });
    expect(undo).toHaveBeenCalledTimes(1);
    press("?");
    expect(await screen.findByRole("dialog")).toHaveTextContent("rooms of the job");
  });

  test("lead to the line of the room, and forget what is not shown any more", () => {
    const undo = vi.fn();
    const drawn = draw(
      <main>
        <Keys jobId="j-1">
          <Room undo={undo} />
        </Keys>
      </main>,
    );
    press("/");
    expect(screen.getByLabelText("field")).toHaveFocus();
    act(() => (document.activeElement as HTMLElement).blur());
    drawn.redraw(
      <main>
        <Keys jobId="j-1">
          <p>another room</p>
        </Keys>
      </main>,
    );
    press("u");
    expect(undo).not.toHaveBeenCalled();
  });
});

test("a record of a machine that is cut off asks whether it was before, and sends it so", () => {
  const again = vi.fn();
  const before = {
    id: "was_before" as const,
    label: "Before it was cut off",
    how: "again" as const,
    with: { was: "before" },
  };
  draw(<WaysOn jobId="j-1" acts={[before]} again={again} />);
  fireEvent.click(screen.getByRole("button", { name: "Before it was cut off" }));
  expect(again).toHaveBeenCalledWith({ was: "before" });
});
