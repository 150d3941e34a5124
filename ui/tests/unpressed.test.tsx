import { fireEvent, render, screen } from "@testing-library/react";
import { useEffect, useState } from "react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { unpressed } from "../src/app/unpressed";

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
    vi.runAllTimers();
    expect(moved).toHaveBeenCalledOnce();
  });

  test("waits for the second of two quick presses too", () => {
    fireEvent.pointerDown(document.body);
    unpressed(moved);
    fireEvent.pointerUp(document.body);
    fireEvent.pointerDown(document.body);
    vi.runAllTimers();
    expect(moved).not.toHaveBeenCalled();
    fireEvent.pointerUp(document.body);
    vi.runAllTimers();
    expect(moved).toHaveBeenCalledOnce();
  });

  test("is given up where the finger moves the page", () => {
    fireEvent.pointerDown(document.body);
    unpressed(moved);
    fireEvent.pointerCancel(document.body);
    vi.runAllTimers();
    expect(moved).not.toHaveBeenCalled();
    unpressed(moved);
    expect(moved).toHaveBeenCalledOnce();
  });
});
