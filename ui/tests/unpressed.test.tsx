import { fireEvent, render, screen } from "@testing-library/react";
import { useEffect, useState } from "react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { moveUnpressed, unpressed } from "../src/app/unpressed";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.runAllTimers();
  vi.useRealTimers();
});

const moved = vi.fn();

/** A page that moves by itself as soon as a field is left, which a press does. */
function Page() {
  const [isLeft, setLeft] = useState(false);
  useEffect(() => {
    if (isLeft) unpressed(moved);
  }, [isLeft]);
  return (
    <>
      <input aria-label="Reads" onBlur={() => setLeft(true)} />
      <button type="button">Log</button>
    </>
  );
}

describe("what moves the page by itself", () => {
  beforeEach(() => moved.mockClear());
  const button = () => screen.getByRole("button");

  test("does so at once while nothing is pressed", () => {
    unpressed(moved);
    expect(moved).toHaveBeenCalledOnce();
  });

  test("waits for the click of the press that is under way", () => {
    render(<Page />);
    fireEvent.pointerDown(button());
    fireEvent.blur(screen.getByLabelText("Reads"));
    fireEvent.pointerUp(button());
    expect(moved).not.toHaveBeenCalled();
    fireEvent.click(button());
    expect(moved).not.toHaveBeenCalled();
    vi.advanceTimersByTime(0);
    expect(moved).toHaveBeenCalledOnce();
  });

  test("waits for the second of two quick presses too", () => {
    fireEvent.pointerDown(document.body);
    unpressed(moved);
    fireEvent.pointerUp(document.body);
    fireEvent.pointerDown(document.body);
    vi.advanceTimersByTime(500);
    expect(moved).not.toHaveBeenCalled();
    fireEvent.pointerUp(document.body);
    vi.runAllTimers();
    expect(moved).toHaveBeenCalledOnce();
  });

  test("is given up where the finger moves the page, if it would scroll", () => {
    const shown = vi.fn();
    fireEvent.pointerDown(document.body);
    moveUnpressed(moved);
    unpressed(shown);
    fireEvent.pointerCancel(document.body);
    expect(shown).toHaveBeenCalledOnce();
    vi.runAllTimers();
    expect(moved).not.toHaveBeenCalled();
    moveUnpressed(moved);
    expect(moved).toHaveBeenCalledOnce();
  });

  test("waits for no finger that rests, and for no other button than the first", () => {
    fireEvent.pointerDown(document.body);
    unpressed(moved);
    vi.advanceTimersByTime(999);
    expect(moved).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1);
    expect(moved).toHaveBeenCalledOnce();
    fireEvent.pointerDown(document.body, { button: 2 });
    unpressed(moved);
    expect(moved).toHaveBeenCalledTimes(2);
  });
});
