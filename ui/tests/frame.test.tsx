import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterAll, beforeEach, describe, expect, it } from "vitest";
import type { Job } from "../src/api/client";
import { Frame } from "../src/app/Frame";
import { STAGES } from "../src/app/stages";
import { serve, TRACE } from "./render";

const stage = (id: string, state: "done" | "blocked" | "open", words: string) => ({ id, state, words });
const JOB = {
  ...TRACE.job,
  stages: [
    stage("intake", "done", "told and looked at"),
    stage("safe", "open", "not proved dead"),
    stage("prove", "blocked", "2 things block it"),
  ],
} as unknown as Job;

const plain = window.matchMedia;
// One window for all files of a worker: the next one finds it as it was.
afterAll(() => {
  Object.defineProperty(window, "matchMedia", { configurable: true, value: plain });
});

/** jsdom knows no screen: whether a query of its width or height holds is said here. */
function screenIs(narrow: boolean) {
  const asked = (query: string) => ({ ...plain(query), matches: narrow && query.includes("max-width") });
  Object.defineProperty(window, "matchMedia", { configurable: true, value: asked });
}

function frame(path = "/jobs/j-1/trace") {
  serve({
    "/health": { body: { status: "ok", warnings: [] } },
    "/jobs/j-1": { body: JOB },
  });
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <MantineProvider env="test">
      <QueryClientProvider client={queries}>
        <MemoryRouter initialEntries={[path]}>
          <Routes>
            <Route element={<Frame />}>
              <Route path="*" element={<h1>The room</h1>} />
            </Route>
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
}

beforeEach(() => {
  localStorage.clear();
  screenIs(false);
});

describe("the rail", () => {
  it("holds the stages of the job in working order, then the rooms of the firm", async () => {
    frame();
    await screen.findByRole("link", { name: /Sheet-out/ });
    const links = within(screen.getByRole("navigation")).getAllByRole("link");
    expect(links.map((link) => link.getAttribute("href"))).toEqual([
      ...STAGES.map((row) => `/jobs/j-1/${row.id}`),
      "/jobs",
      "/machines",
      "/shelf",
      "/setup",
    ]);
    expect(screen.getByRole("link", { name: /Trace/ })).toHaveAttribute("aria-current", "page");
    expect(screen.getByRole("heading", { name: "The room" })).toBeInTheDocument();
  });

  it("marks what is done and what is blocked, in words too; what is open has no mark", async () => {
    frame();
    expect(await screen.findByRole("link", { name: /Intake\s*done/ })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: /Prove\s*blocked/ })).toBeInTheDocument();
    expect(screen.getByTitle("2 things block it")).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "Safe" })).toBeInTheDocument();
  });

  it("holds only the rooms of the firm while no job was opened, and the last job after one was", async () => {
    const { unmount } = frame("/shelf");
    expect(screen.getAllByRole("link")).toHaveLength(4);
    unmount();
    localStorage.setItem("ohmcensus.job", "j-1");
    frame("/shelf");
    expect(await screen.findByRole("link", { name: /Repair/ })).toHaveAttribute("href", "/jobs/j-1/repair");
  });

  it("turns sound on and off, and keeps it", async () => {
    const { unmount } = frame();
    fireEvent.click(screen.getByRole("button", { name: /^Sound off/ }));
    expect(screen.getByRole("button", { name: /^Sound on/ })).toHaveTextContent("Sound on");
    unmount();
    frame();
    fireEvent.click(screen.getByRole("button", { name: /^Sound on/ }));
    expect(screen.getByRole("button", { name: /^Sound off/ })).toBeInTheDocument();
  });

  it("changes between day and night", async () => {
    frame();
    const change = screen.getByRole("button", { name: "Change between day and night" });
    expect(change).toHaveTextContent("Day");
    fireEvent.click(change);
    await waitFor(() => expect(change).toHaveTextContent("Night"));
  });
});

describe("the bar of a phone", () => {
  beforeEach(() => screenIs(true));

  it("names the machine, leads back to the jobs, and holds every room in one list", async () => {
    frame();
    expect(await screen.findByRole("link", { name: "Machine 3, Go to Jobs" })).toHaveAttribute(
      "href",
      "/jobs",
    );
    fireEvent.click(screen.getByRole("button", { name: "Trace" }));
    const items = await screen.findAllByRole("menuitem");
    expect(items).toHaveLength(STAGES.length + 4 + 2);
    expect(screen.getByRole("menuitem", { name: /Prove\s*blocked/ })).toHaveAttribute(
      "href",
      "/jobs/j-1/prove",
    );
    fireEvent.click(screen.getByRole("menuitem", { name: /^Sound off/ }));
    expect(localStorage.getItem("ohmcensus.sound")).toBe("true");
  });

  it("names the product in the rooms of the firm, without a way back", () => {
    frame("/setup");
    expect(screen.getByRole("link", { name: "ohmcensus" })).toHaveAttribute("href", "/jobs");
    expect(screen.getByRole("button", { name: "Setup" })).toBeInTheDocument();
  });
});
