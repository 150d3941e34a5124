import { act, fireEvent, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { Field, NumberField } from "../src/app/controls/Field";
import { Keypad } from "../src/app/Keypad";
import { draw } from "./render";

const before = window.matchMedia;
const ask = (matchMedia: typeof before) =>
  Object.defineProperty(window, "matchMedia", { configurable: true, value: matchMedia });

beforeEach(() => {
  vi.useFakeTimers();
  ask(((query: string) => ({ ...before(query), matches: query.includes("max-width") })) as typeof before);
});
afterEach(() => {
  vi.useRealTimers();
  ask(before);
});

function Form({ onLog = () => undefined }: { onLog?: (figure: string) => void }) {
  const [figure, setFigure] = useState("");
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onLog(figure);
        }}
      >
        <NumberField label="Reads" value={figure} onChange={setFigure} />
        <Field label="Note" value="" onChange={() => undefined} />
      </form>
      <Keypad />
    </>
  );
}

/** A form of which the field goes and the keypad stays. */
function Row({ hasField = true }: { hasField?: boolean }) {
  return (
    <>
      {hasField && <NumberField label="Reads" value="" onChange={() => undefined} />}
      <Keypad />
    </>
  );
}

const key = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const into = (label: string) => act(() => screen.getByLabelText(label).focus());

describe("the keypad", () => {
  test("types every sign that a reading needs where the focus is, and logs it", () => {
    const onLog = vi.fn();
    draw(<Form onLog={onLog} />);
    expect(screen.queryByRole("region", { name: "Keypad" })).toBeNull();
    into("Reads");
    for (const sign of ["0", "1", "9", ".", "k", "M", "µ", "m", "OL", ">", "<", "Space"]) key(sign);
    expect(screen.getByLabelText("Reads")).toHaveValue("019.kMµmOL>< ");
    key("Delete one character");
    key("at");
    expect(screen.getByLabelText("Reads")).toHaveValue("019.kMµmOL>< at ");
    key("Log");
    expect(onLog).toHaveBeenCalledWith("019.kMµmOL>< at ");
  });

  test("comes for a field of a figure only, and goes a moment after it was left", () => {
    draw(<Form />);
    into("Reads");
    expect(screen.getByRole("region", { name: "Keypad" })).toBeInTheDocument();
    into("Note");
    expect(screen.queryByRole("region", { name: "Keypad" })).toBeNull();
    into("Reads");
    act(() => screen.getByLabelText("Reads").blur());
    expect(screen.getByRole("region", { name: "Keypad" })).toBeInTheDocument();
    act(() => vi.advanceTimersByTime(400));
    expect(screen.queryByRole("region", { name: "Keypad" })).toBeNull();
  });

  test("stays for the field that takes the place of one that is gone, and goes at once where none does", async () => {
    const { redraw } = draw(<Row />);
    into("Reads");
    redraw(<Row hasField={false} />);
    redraw(<Row />);
    into("Reads");
    await act(() => vi.advanceTimersByTimeAsync(100));
    expect(screen.getByRole("region", { name: "Keypad" })).toBeInTheDocument();
    redraw(<Row hasField={false} />);
    await act(() => vi.advanceTimersByTimeAsync(100));
    expect(screen.queryByRole("region", { name: "Keypad" })).toBeNull();
  });

  test("gives way to the phone's own letters, for as long as the field is held", () => {
    draw(<Form />);
    into("Reads");
    const field = screen.getByLabelText("Reads");
    expect(field).toHaveAttribute("inputmode", "none");
    key("Letters");
    expect(field).toHaveFocus();
    act(() => field.blur());
    expect((field as HTMLInputElement).inputMode).toBe("none");
  });

  test("is not drawn where there are keys", () => {
    ask(before);
    draw(<Form />);
    into("Reads");
    expect(screen.queryByRole("region", { name: "Keypad" })).toBeNull();
    expect(screen.getByLabelText("Reads")).toHaveAttribute("inputmode", "decimal");
  });
});
