import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, test, vi } from "vitest";
import type { RepairView, WorthView } from "../../src/api/repair";
import { ChangeForm } from "../../src/rooms/repair/ChangeForm";
import { ConnectorsCard } from "../../src/rooms/repair/ConnectorsCard";
import { ReplaceCard } from "../../src/rooms/repair/ReplaceCard";
import { StepList } from "../../src/rooms/repair/StepList";
import { StripCard } from "../../src/rooms/repair/StripCard";
import { TricksCard } from "../../src/rooms/repair/TricksCard";
import { WorthCard } from "../../src/rooms/repair/WorthCard";
import { draw } from "../render";
import { answering, STRIPPED, VIEW } from "./repairView";

afterEach(() => vi.restoreAllMocks());

const WORTH: WorthView = {
  part: "heater",
  given: {
    hour: 60,
    call_out: 35,
    minutes: 34,
    offers: [{ condition: "new", price: 38, fails: 0.02 }],
    mend_minutes: 0,
    mend_price: 0,
    mend_fails: 0.35,
    sure: 0.9,
    machine_price: 520,
    age_years: 6,
    life_years: 11,
  },
  choices: [
    { id: "replace_new", title: "Replace the part, new", now: 107, expected: 109, years: 6.2, per_year: 18 },
    {
      id: "give_up",
      title: "Give up the machine, fit another",
      now: 555,
      expected: 555,
      years: 11,
      per_year: 50,
    },
  ],
  advice: "Replace the part, new: 18 a year of use; next give up the machine, fit another, 50.",
  assumed: ["A repair that does not last a year is done once more: new part, work and visit."],
};

test("steps stand in order, runs with their word, and what they prove above them", () => {
  draw(<StepList view={VIEW} />);
  expect(screen.getByRole("status")).toHaveTextContent("Conclusive");
  expect(screen.getAllByRole("listitem").map((row) => row.lastElementChild?.textContent)).toEqual([
    "fails",
    "Heater: another one fitted",
    "runs",
  ]);
});

test("a change is sent with its part, what was done and the piece that sits there now", async () => {
  const sent = answering({});
  draw(<ChangeForm view={VIEW} sawFail={false} />);
  fireEvent.change(screen.getByLabelText("What was done"), { target: { value: "replaced" } });
  fireEvent.change(screen.getByLabelText("Which piece is fitted now"), { target: { value: "spare 1" } });
  fireEvent.click(screen.getByRole("button", { name: "Save the change" }));
  await waitFor(() =>
    expect(sent[0]).toMatchObject({
      body: { kind: "changed", part: "heater", intervention: "replaced", fitted: "spare 1" },
    }),
  );
  fireEvent.click(screen.getByRole("button", { name: "runs through" }));
  await waitFor(() =>
    expect(sent.at(-1)).toMatchObject({ body: { kind: "run_watched", outcome: "through" } }),
  );
});

test("figures can be changed, a word among them is told by its field and nothing is sent", async () => {
  const sent = answering(WORTH);
  draw(<WorthCard view={VIEW} />);
  await screen.findByText(WORTH.advice);
  fireEvent.change(screen.getByLabelText("Another machine, fitted"), { target: { value: "dear" } });
  fireEvent.click(screen.getByRole("button", { name: "Calculate" }));
  expect(screen.getByRole("alert")).toHaveTextContent("Another machine, fitted: not a number");
  const before = sent.length;
  fireEvent.change(screen.getByLabelText("Another machine, fitted"), { target: { value: "480,5" } });
  fireEvent.click(screen.getByRole("button", { name: "Calculate" }));
  await waitFor(() => expect(sent.length).toBe(before + 1));
  expect(sent.at(-1)).toMatchObject({ part: "heater", given: { machine_price: 480.5, sure: 0.9 } });
});

test("the strip-down turned round asks for what is missing, last off first", async () => {
  const sent = answering({});
  draw(<StripCard view={STRIPPED} onPart={() => undefined} />);
  expect(screen.getByText(/1 of 2 refitted/)).toHaveTextContent("took 12 min");
  expect(screen.getByText(/1 of 1 fasteners/)).toBeInTheDocument();
  fireEvent.click(screen.getByRole("button", { name: "Show the way back" }));
  expect(screen.getAllByRole("listitem")[0]).toHaveTextContent("heater");
  fireEvent.click(screen.getByRole("button", { name: "Both heater tags: on" }));
  fireEvent.click(screen.getByRole("button", { name: "Save as refitted: heater" }));
  await waitFor(() =>
    expect(sent[0]).toMatchObject({ body: { kind: "strip_back", step: "s-2", fasteners: 1, plugs: [] } }),
  );
});

test("a step is sent with its fasteners, cover and plugs, and a word for a count is told", async () => {
  const sent = answering({});
  draw(<StripCard view={STRIPPED} onPart={() => undefined} />);
  fireEvent.change(screen.getByLabelText("What comes off"), { target: { value: "top cover" } });
  fireEvent.change(screen.getByLabelText("Fasteners"), { target: { value: "some" } });
  fireEvent.click(screen.getByRole("button", { name: "Save the step" }));
  expect(screen.getByRole("alert")).toHaveTextContent("not a whole number");
  fireEvent.change(screen.getByLabelText("Fasteners"), { target: { value: "2" } });
  fireEvent.change(screen.getByLabelText("Cover"), { target: { value: "back" } });
  fireEvent.click(screen.getByRole("button", { name: "Save the step" }));
  await waitFor(() =>
    expect(sent[0]).toMatchObject({
      body: { kind: "strip_step", words: "top cover", fasteners: 2, panel: "back" },
    }),
  );
});

const PHOTO = {
  id: "p-1",
  role: "connector",
  event: "",
  address: "/a.jpg",
  small: "/s.jpg",
  width: 400,
  height: 300,
};

test("a connector's pins are placed by touch, moved by arrows, labelled and sent; reloading loses nothing", async () => {
  const sent = answering({});
  const view = { ...STRIPPED, strip: { ...STRIPPED.strip, loose: [PHOTO] } } as unknown as RepairView;
  const { unmount } = draw(<ConnectorsCard view={view} />);
  fireEvent.click(screen.getByRole("button", { name: "Add a pin" }));
  fireEvent.keyDown(screen.getByRole("button", { name: "Pin 1" }), { key: "ArrowRight" });
  fireEvent.change(screen.getByLabelText("Label of pin 1"), { target: { value: "L" } });
  fireEvent.change(screen.getByLabelText("Connector"), { target: { value: "heater plug" } });
  unmount();
  draw(<ConnectorsCard view={view} />);
  fireEvent.click(screen.getByRole("button", { name: "Save the connector" }));
  await waitFor(() =>
    expect(sent[0]).toMatchObject({
      body: {
        kind: "connector_noted",
        photo: "p-1",
        words: "heater plug",
        pins: [{ number: 1, x: 0.51, label: "L" }],
      },
    }),
  );
});

test("going back, each pin is ticked against the large photo", async () => {
  const sent = answering({});
  const row = {
    photo: PHOTO,
    words: "heater plug",
    plug: "",
    pins: [
      { number: 1, x: 0.2, y: 0.5, label: "L", colour: "brown", is_empty: false },
      { number: 2, x: 0.6, y: 0.5, label: "", colour: "", is_empty: true },
    ],
    ticked: [1],
    is_whole: false,
  };
  draw(<ConnectorsCard view={{ ...STRIPPED, strip: { ...STRIPPED.strip, connectors: [row] } } as never} />);
  expect(screen.getByText("1 of 2 pins ticked")).toBeInTheDocument();
  expect(screen.getByRole("img")).toHaveAttribute("src", "/a.jpg");
  fireEvent.click(screen.getAllByRole("button", { name: /Pin 2: empty/ })[0] as HTMLElement);
  await waitFor(() => expect(sent[0]).toMatchObject({ body: { kind: "connector_ticked", pins: [1, 2] } }));
});

test("what a part needs and what hurts there stand beside the work", () => {
  draw(<TricksCard view={STRIPPED} />);
  expect(screen.getByText("The tip goes into its clip first.")).toBeInTheDocument();
  expect(screen.getByText("Turn the drum.")).toHaveClass("notice");
});

describe("another piece", () => {
  const spare = {
    id: "sp-1",
    mark: "spare 1",
    where: "Tray 1",
    soundness: "good",
    soundness_words: "every reading inside",
  };
  const pieces = [
    { spare, misfits: [] },
    { spare: { ...spare, id: "sp-2", mark: "spare 2" }, misfits: ["plug: three tags, wanted two"] },
    { spare: { ...spare, id: "sp-3", mark: "spare 3", soundness: "bad" }, misfits: [] },
  ];
  const card = (sawFail: boolean | null, onSawFail = () => undefined) => (
    <ReplaceCard view={{ ...VIEW, asks_saw_fail: true }} sawFail={sawFail} onSawFail={onSawFail} />
  );

  test("is fitted from the shelf once it is said whether the fault was seen", async () => {
    const sent = answering({ job: { id: "j-1", revision: 1 }, pieces });
    const onSawFail = vi.fn();
    const { redraw } = draw(card(null, onSawFail));
    fireEvent.click(await screen.findByRole("button", { name: "Fit spare 1" }));
    expect(screen.getByRole("alert")).toHaveTextContent("Say first whether you saw it fail yourself");
    expect(screen.getByText("plug: three tags, wanted two")).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: "Fit spare 3" })).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: "Yes" }));
    expect(onSawFail).toHaveBeenCalledWith(true);
    redraw(card(true));
    fireEvent.click(screen.getByRole("button", { name: "Fit spare 1" }));
    await waitFor(() =>
      expect(sent.at(-1)).toMatchObject({
        body: { kind: "changed", part: "heater", intervention: "replaced", spare: "sp-1", saw_fail: true },
      }),
    );
  });

  test("is ordered where the shelf has none", async () => {
    answering({ job: { id: "j-1", revision: 1 }, pieces: [] });
    draw(card(false));
    expect(await screen.findByText(/No piece of this kind on the shelf/)).toBeInTheDocument();
  });
});
