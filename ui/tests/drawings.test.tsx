import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Schemas, Verdict } from "../src/api/client";
import { LineMarks } from "../src/drawings/LineMarks";
import { OhmRuler } from "../src/drawings/OhmRuler";
import { ShortRuler } from "../src/drawings/ShortRuler";
import { VerdictMark, verdictColour } from "../src/drawings/VerdictMark";
import { verdictWords } from "../src/words/trace";

const VERDICTS = Object.keys(verdictWords) as Verdict[];

describe("the mark of a verdict", () => {
  it.each(VERDICTS)("says %s in words", (verdict) => {
    render(<VerdictMark verdict={verdict} />);
    expect(screen.getByRole("img", { name: verdictWords[verdict] })).toBeInTheDocument();
  });

  it("has a shape of its own for every verdict", () => {
    const shapes = [null, ...VERDICTS].map((verdict) => {
      const { container, unmount } = render(<VerdictMark verdict={verdict} />);
      const shape = [...container.querySelectorAll("path, circle")]
        .map((mark) => `${mark.tagName}${mark.getAttribute("d") ?? mark.getAttribute("cx")}`)
        .join("|");
      unmount();
      return shape;
    });
    expect(new Set(shapes).size).toBe(shapes.length);
  });

  it("is copper only where the reading is surely outside", () => {
    const copper = VERDICTS.filter((verdict) => verdictColour(verdict) === "var(--outside)");
    expect(copper.sort()).toEqual(["open", "outside_high", "outside_low", "short"]);
  });
});

describe("the ohm ruler", () => {
  const ruler: Schemas["OhmRuler"] = {
    ticks: [{ x: 0, label: "0.1 Ω" }],
    bands: [{ line: "heater.pe", x0: 0.65, x1: 1, label: "Heater, to earth" }],
    pins: [
      {
        line: "heater.pe",
        x: 0.57,
        label: "47k",
        level: 0,
        verdict: "outside_low",
        towards: 0.65,
        beyond: 0,
      },
    ],
  };

  it("tells a screen reader every pin as a table", () => {
    render(<OhmRuler ruler={ruler} lines={["heater.pe"]} chosen={null} ghost={null} />);
    const table = screen.getByRole("table", { name: "Readings on the ohm ruler" });
    expect(table).toHaveTextContent("heater.pe47k Ωoutside, low");
  });

  it("is not drawn for a part that nothing in ohms is told of", () => {
    const drawn = render(<OhmRuler ruler={ruler} lines={["capacitor.value"]} chosen={null} ghost={null} />);
    expect(drawn.container).toBeEmptyDOMElement();
  });
});

describe("the marks of a part's lines", () => {
  it("say in words how many were asked, and what they said", () => {
    const keys = ["a", "b", "c", "d"];
    render(<LineMarks verdicts={[null, "inside", "open", "inside"]} keys={keys} asked="a" width={132} />);
    expect(screen.getByRole("img", { name: "3 of 4 asked, 2 inside, 1 open" })).toBeInTheDocument();
  });

  it("stay within their width however many lines there are", () => {
    const many = Array.from({ length: 24 }, (_, place) => `board.${place}`);
    const drawn = render(<LineMarks verdicts={many.map(() => null)} keys={many} asked={null} width={132} />);
    const last = [...drawn.container.querySelectorAll("g")].at(-1);
    expect(Number(/translate\(([\d.]+)/.exec(last?.getAttribute("transform") ?? "")?.[1])).toBeLessThan(132);
  });
});

describe("a short ruler", () => {
  const base = { window_lo: 0.25, window_hi: 0.75, label_lo: "207 V", label_hi: "253 V" };

  it("draws a pin only for a reading", () => {
    const without = render(
      <ShortRuler ruler={{ ...base, lo: null, hi: null, pin: null }} verdict={null} width={100} labels />,
    );
    expect(without.container.querySelector("circle")).toBeNull();
    expect(without.container).toHaveTextContent("207 V253 V");
    const reading = render(
      <ShortRuler
        ruler={{ ...base, lo: 0.4, hi: 0.6, pin: 0.5 }}
        verdict="inside"
        width={116}
        labels={false}
      />,
    );
    expect(reading.container.querySelector("circle")).toHaveAttribute("cx", "58");
  });
});
