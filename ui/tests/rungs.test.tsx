import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Rungs } from "../src/api/client";
import { RungDrawing } from "../src/drawings/RungDrawing";
import { LadderPanel } from "../src/rooms/trace/LadderPanel";
import { draw, serve } from "./render";

const MARK = {
  is_open: false,
  is_pulled: false,
  probe_left: false,
  probe_right: false,
  ink: "line",
} as const;
const VIEW: Rungs["view"] = {
  trunk: [{ ...MARK, kind: "wire", part: "cord", label: "Cord, l", x: 0.5, test: "cord.l" }],
  rungs: [
    {
      title: "Heater",
      marks: [
        {
          ...MARK,
          kind: "contact",
          part: "board",
          label: "Control board, relay",
          x: 0.3,
          test: "board.relay",
          is_open: true,
        },
        {
          ...MARK,
          kind: "wire",
          part: "harness",
          label: "Harness, heater",
          x: 0.5,
          test: "harness.heater",
          ink: "none",
        },
        { ...MARK, kind: "capacitor", part: "run", label: "Capacitor", x: 0.6, test: "", ink: "none" },
        {
          ...MARK,
          kind: "load",
          part: "heater",
          label: "Heater",
          x: 0.7,
          test: "heater.element",
          ink: "neutral",
          probe_left: true,
          probe_right: true,
        },
      ],
      stretches: [
        { x0: 0, x1: 0.3, ink: "line" },
        { x0: 0.3, x1: 0.7, ink: "none" },
        { x0: 0.7, x1: 1, ink: "neutral" },
      ],
    },
  ],
  comb: [{ part: "heater", label: "Heater", test: "heater.pe", probe: true }],
};
const RUNGS: Rungs = {
  states: [{ name: "heater_relay", values: ["open", "closed"], value: "open" }],
  plugs: [{ id: "heater_tags", title: "Both heater tags", is_pulled: true }],
  from_line: ["Cord"],
  only_from_neutral: ["Heater"],
  not_reached: [],
  view: VIEW,
};

describe("the ladder", () => {
  it("says of every thing how it stands, and chooses its test", () => {
    const onChoose = vi.fn();
    const { container } = draw(<RungDrawing view={VIEW} chosen="heater.element" onChoose={onChoose} />);
    expect(
      screen.getByRole("button", { name: "Control board, relay, open, reached from line" }),
    ).toBeInTheDocument();
    const heater = screen.getByRole("button", { name: "Heater, reached only from neutral" });
    expect(heater).toHaveAttribute("aria-pressed", "true");
    fireEvent.click(heater);
    fireEvent.keyDown(screen.getByRole("button", { name: "touches the chassis: Heater" }), { key: "Enter" });
    fireEvent.click(screen.getByRole("button", { name: "Capacitor, not reached" }));
    expect(onChoose.mock.calls).toEqual([["heater.element"], ["heater.pe"]]);
    expect(container.querySelectorAll(".rung-probe")).toHaveLength(3);
    expect(container.querySelectorAll(".rung-wire.none")).toHaveLength(1);
  });

  it("asks for the configuration of the test first, then for one's own", async () => {
    const asked: string[] = [];
    serve({ "/rungs": { body: RUNGS } });
    const server = globalThis.fetch;
    globalThis.fetch = (input, init) => {
      asked.push(new URL((input as Request).url).search);
      return server(input, init);
    };
    draw(
      <LadderPanel jobId="j-1" chosen="heater.element" onChoose={() => undefined} onBack={() => undefined} />,
    );
    fireEvent.change(await screen.findByLabelText("heater relay"), { target: { value: "closed" } });
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[0]).toContain("test=heater.element");
    expect(decodeURIComponent(asked[1] ?? "")).toContain("pulled=heater_tags");
    expect(decodeURIComponent(asked[1] ?? "")).toContain("states=heater_relay:closed");
    fireEvent.click(screen.getByRole("button", { name: "Both heater tags" }));
    await waitFor(() => expect(asked).toHaveLength(3));
    fireEvent.click(screen.getByRole("button", { name: "As the test" }));
    expect(screen.getByRole("link", { name: "Picture" })).toHaveAttribute(
      "href",
      expect.stringContaining("rungs.svg"),
    );
  });

  it("says why there is none", async () => {
    serve({ "/rungs": { status: 422, body: { type: "/problems/input", detail: "sheet x has no wiring" } } });
    draw(<LadderPanel jobId="j-1" chosen={null} onChoose={() => undefined} onBack={() => undefined} />);
    expect(await screen.findByText("sheet x has no wiring")).toBeInTheDocument();
  });
});
