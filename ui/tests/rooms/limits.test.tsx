import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { Settings } from "../../src/api/client";
import { LimitsForm } from "../../src/rooms/setup/LimitsForm";
import { TextsCard } from "../../src/rooms/setup/TextsCard";
import { example } from "../examples";
import { draw, serve } from "../render";

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

test("figures are from memory until somebody says against which text they were read", async () => {
  localStorage.clear();
  const settings = example<Settings>("settings");
  const refused = { status: 422, body: { type: "/problems/input", detail: "the figures are others now" } };
  const sent = serve({
    "/limits": { body: example("limits") },
    "/settings": [refused, { body: settings }],
  });
  draw(<TextsCard settings={{ ...settings, technician: "Duty technician" }} />);
  const row = (await screen.findByText("After repair, 230 V")).closest("li") as HTMLElement;
  expect(row).toHaveTextContent("From memory, not yet confirmed");
  fireEvent.click(within(row).getByRole("button"));
  expect(screen.getByRole("button", { name: "Save" })).toBeDisabled();
  fireEvent.change(screen.getByLabelText("Text and edition you read"), {
    target: { value: "EN 50678:2020" },
  });
  expect(screen.getByLabelText("Read by")).toHaveValue("Duty technician");
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  expect(await screen.findByRole("alert")).toHaveTextContent("the figures are others now");
  expect(screen.getByLabelText("Text and edition you read")).toHaveValue("EN 50678:2020");
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  await waitFor(() => expect(screen.queryByLabelText("Read by")).toBeNull());
  const [said] = (sent.at(1) as (typeof sent)[number]).body.confirmations as {
    text: string;
    figures: string;
    edition: string;
  }[];
  expect(said).toMatchObject({ text: "after_repair", edition: "EN 50678:2020" });
  expect(row).toHaveTextContent(said?.figures ?? "");
});
