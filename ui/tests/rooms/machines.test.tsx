import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, test, vi } from "vitest";
import { Field, listed, said, unlisted } from "../../src/rooms/machines/fields";
import { figure } from "../../src/rooms/machines/figure";
import { joined } from "../../src/rooms/machines/WiringSection";
import { draw } from "../render";

describe("figures stand as they are typed", () => {
  test.each([
    [4.7e-9, "4.7n"],
    [0.47e-6, "470n"],
    [60e-6, "60µ"],
    [2000, "2000"],
    [680_000, "680k"],
    [1_000_000, "1M"],
    [0.75, "0.75"],
    [0, "0"],
    ["4n7", "4n7"],
    [null, ""],
    [undefined, ""],
  ])("%s as %s", (value, shown) => expect(figure(value)).toBe(shown));
});

describe("pins and wires", () => {
  const nets = { line: ["a.l", "b.l"], lead: ["b.out", "c.a"] };
  test.each([
    ["a pin goes to another wire", "b.l", "lead", { line: ["a.l"], lead: ["b.out", "c.a", "b.l"] }],
    ["a new wire begins", "c.a", "My lead", { line: ["a.l", "b.l"], lead: ["b.out"], my_lead: ["c.a"] }],
    ["a pin is taken off", "b.l", " ", { line: ["a.l"], lead: ["b.out", "c.a"] }],
    [
      "naming the same wire changes nothing but the order",
      "a.l",
      "line",
      { line: ["b.l", "a.l"], lead: ["b.out", "c.a"] },
    ],
  ])("%s", (_what, pin, name, after) => expect(joined(nets, pin, name)).toEqual(after));
  test("a wire without pins is gone", () => {
    expect(joined({ lost: ["a.l"] }, "a.l", "")).toEqual({});
  });
});

test("names with commas go both ways", () => {
  expect(unlisted(" heater, pump ,, ")).toEqual(["heater", "pump"]);
  expect(listed(["heater", "pump"])).toBe("heater, pump");
  expect(listed("typed")).toBe("typed");
});

test("a remark names the part, not its number", () => {
  const remark = { path: ["parts", 1, "ratings", "watts"], message: "give a number", refused: true };
  expect(said(remark, 0, [{ id: "cord" }, { id: "heater" }])).toBe("heater, watts: give a number");
  expect(said(remark, 0, [])).toBe("part 2, watts: give a number");
  expect(said(remark, 2)).toBe("watts: give a number");
  expect(said({ ...remark, path: [] })).toBe("give a number");
});

test("a field is taken over when it is left, and follows what comes from elsewhere", () => {
  const change = vi.fn();
  const drawn = draw(<Field label="farad" value={60e-6} onChange={change} />);
  const input = screen.getByLabelText("farad");
  fireEvent.change(input, { target: { value: "45u" } });
  expect(change).not.toHaveBeenCalled();
  fireEvent.blur(input);
  expect(change).toHaveBeenCalledExactlyOnceWith("45u");
  drawn.redraw(<Field label="farad" value={45e-6} onChange={change} />);
  expect(input).toHaveProperty("value", "45µ");
  fireEvent.keyDown(input, { key: "Enter" });
  expect(change).toHaveBeenCalledTimes(1);
});
