import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { LimitsForm } from "../../src/rooms/setup/LimitsForm";
import { draw } from "../render";

test("limits that are no numbers are told so, and nothing is kept", () => {
  const sent = vi.spyOn(globalThis, "fetch");
  const own = { id: "ours", title: "Ours", basis: "", class_i_megohm: 2 };
  draw(<LimitsForm settings={{ profile: "ours", own_profiles: [own] }} />);
  fireEvent.click(screen.getByRole("button", { name: "Edit the limits" }));
  expect(screen.getByLabelText("Insulation, class I, MΩ")).toHaveValue("2");
  fireEvent.change(screen.getByLabelText("Leakage of one part, mA"), { target: { value: "little" } });
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  expect(screen.getByRole("alert")).toHaveTextContent("numbers over 0");
  expect(sent.mock.calls.filter(([request]) => (request as Request).method === "PUT")).toHaveLength(0);
  sent.mockRestore();
});

test("a kind of part with a limit of its own is kept with the profile", async () => {
  const kept: { kinds_megohm?: object }[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
    const request = input as Request;
    if (request.method === "PATCH") kept.push(...(await request.json()).own_profiles);
    return new Response(JSON.stringify({ profiles: [], kinds: { heater: "Heater", motor: "Motor" } }));
  });
  const own = {
    id: "ours",
    title: "Ours",
    basis: "",
    class_i_megohm: 1,
    heating_megohm: 0.3,
    class_ii_megohm: 2,
  };
  draw(
    <LimitsForm settings={{ profile: "ours", own_profiles: [{ ...own, part_ma: 0.75, touch_ma: 0.5 }] }} />,
  );
  fireEvent.click(screen.getByRole("button", { name: "Edit the limits" }));
  fireEvent.click(await screen.findByRole("button", { name: "Add a kind of part" }));
  fireEvent.change(screen.getByLabelText("Insulation, MΩ"), { target: { value: "0,5" } });
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  await vi.waitFor(() => expect(kept[0]?.kinds_megohm).toEqual({ heater: 0.5 }));
  vi.restoreAllMocks();
});
