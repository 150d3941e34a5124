import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { LimitsForm } from "../../src/rooms/setup/LimitsForm";
import { draw } from "../render";

test("limits that are no numbers are told so, and nothing is kept", () => {
  const sent = vi.spyOn(globalThis, "fetch");
  const own = { id: "ours", title: "Ours", basis: "", class_i_megohm: 2 };
  draw(<LimitsForm settings={{ profile: "ours", own_profiles: [own] }} />);
  fireEvent.click(screen.getByRole("button", { name: "Change them for us" }));
  expect(screen.getByLabelText("Insulation, class I, MΩ")).toHaveValue("2");
  fireEvent.change(screen.getByLabelText("Leakage of one part, mA"), { target: { value: "little" } });
  fireEvent.click(screen.getByRole("button", { name: "Keep" }));
  expect(screen.getByRole("alert")).toHaveTextContent("numbers over 0");
  expect(sent.mock.calls.filter(([, init]) => init?.method === "PUT")).toHaveLength(0);
  sent.mockRestore();
});
