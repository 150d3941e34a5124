import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, test, vi } from "vitest";
import type { RepairView } from "../../src/api/repair";
import { StripCard } from "../../src/rooms/repair/StripCard";
import { draw } from "../render";
import { answering, STRIPPED } from "./repairView";

describe("the plan", () => {
  const back = {
    kind: "strip_step" as const,
    words: "Back panel off",
    fasteners: 6,
    head: "cross",
    size: "M4 x 12",
    kept: "blue lid",
    panel: "back",
    plugs: [],
    part: "" as const,
    minutes: null,
  };
  const out = {
    ...back,
    words: "Heater out",
    fasteners: 0,
    head: "",
    size: "",
    kept: "",
    panel: "",
    part: "heater",
  };
  const planned = (state: "to_do" | "off"): RepairView => ({
    ...STRIPPED,
    strip: { ...STRIPPED.strip, steps: [] },
    plan: {
      ...STRIPPED.plan,
      told: 1,
      cautions: ["Turn the drum by hand."],
      steps: [
        {
          id: "back",
          proposal: back,
          minutes: "3 min",
          told: true,
          before: null,
          state,
          step: state === "off" ? "s-9" : "",
        },
        {
          id: "heater",
          proposal: out as never,
          minutes: "",
          told: false,
          state: "to_do",
          step: "",
          before: null,
        },
      ],
    },
  });
  const card = (view: RepairView, onPart = () => undefined) => <StripCard view={view} onPart={onPart} />;

  test("is ticked at one touch a step, with what held it on an earlier job", async () => {
    const sent = answering({});
    draw(card(planned("to_do")));
    expect(screen.getByText("6 × cross M4 x 12, blue lid")).toBeInTheDocument();
    expect(screen.getByText(/and earlier jobs/)).toBeInTheDocument();
    expect(screen.getByText("Turn the drum by hand.")).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Back panel off" }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        body: { kind: "strip_step", words: "Back panel off", fasteners: 6, kept: "blue lid", panel: "back" },
      }),
    );
    expect(JSON.stringify(sent[0])).not.toContain("minutes");
  });

  test("shows how it looked on an earlier job, until this one has a photo of its own", () => {
    const view = planned("off");
    const before = {
      id: "p-1",
      role: "step",
      event: "s-1",
      address: "/api/photos/a.jpg",
      small: "/api/photos/a-small.jpg",
      width: 60,
      height: 40,
      at: "2026-06-01T10:00:00Z",
    };
    const earlier: RepairView = {
      ...view,
      plan: { ...view.plan, steps: view.plan.steps.map((row) => ({ ...row, before })) },
    };
    const { redraw } = draw(card(earlier));
    const shown = () =>
      screen.queryByRole("img", { name: "How it looked on an earlier job: Back panel off" });
    expect(shown()).toHaveAttribute("src", "/api/photos/a-small.jpg");
    const step = { ...(STRIPPED.strip.steps[0] as RepairView["strip"]["steps"][number]), id: "s-9" };
    const own = { ...step, photos: [{ ...before, id: "p-2", event: "s-9" }] };
    redraw(card({ ...earlier, strip: { ...earlier.strip, steps: [own] } }));
    expect(shown()).toBeNull();
  });

  test("takes what differs, typed once, and tells a word for a count", async () => {
    const sent = answering({});
    draw(card(planned("to_do")));
    fireEvent.click(screen.getByRole("button", { name: "Edit: Back panel off" }));
    const count = screen.getAllByLabelText("Fasteners")[0] as HTMLElement;
    fireEvent.change(count, { target: { value: "five" } });
    fireEvent.click(screen.getByRole("button", { name: "It is off" }));
    expect(screen.getByRole("alert")).toHaveTextContent("not a whole number");
    fireEvent.change(count, { target: { value: "5" } });
    fireEvent.click(screen.getByRole("button", { name: "It is off" }));
    await waitFor(() => expect(sent[0]).toMatchObject({ body: { fasteners: 5, head: "cross" } }));
  });

  test("shows what is off and which is next, and is made for another part", () => {
    const onPart = vi.fn();
    draw(card(planned("off"), onPart));
    expect(screen.getByRole("button", { name: "Back panel off: off" })).toBeDisabled();
    expect(screen.getByRole("button", { name: "Heater out" }).closest("li")).toHaveAttribute("aria-current");
    fireEvent.change(screen.getByLabelText("Plan for the part"), { target: { value: "board" } });
    expect(onPart).toHaveBeenCalledWith("board");
  });
});
