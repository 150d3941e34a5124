import { screen } from "@testing-library/react";
import { describe, expect, test } from "vitest";
import { NextBar } from "../src/app/NextBar";
import { draw, serve } from "./render";

const OUTLOOK = {
  revision: 7,
  standing: "named",
  named: [{ id: "heater", words: "Heater" }],
  sentence: "",
  next_step: { stage: "repair", words: "Heater: replace the heater", part: "heater", test: "" },
};

describe("the end of every room", () => {
  test("names the part and leads to what is next", async () => {
    serve({ "/outlook": { body: OUTLOOK } });
    draw(<NextBar jobId="j-1" />);
    const way = await screen.findByRole("link", { name: "Next: Heater: replace the heater" });
    expect(way).toHaveAttribute("href", "/jobs/j-1/repair");
    expect(screen.getByText("Named: Heater.")).toBeInTheDocument();
  });

  test("has no way out of the room where it is done", async () => {
    serve({ "/outlook": { body: OUTLOOK } });
    draw(<NextBar jobId="j-1" />, "repair");
    expect(await screen.findByText("Next, here: Heater: replace the heater")).toBeInTheDocument();
    expect(screen.queryByRole("link")).toBeNull();
  });
});
