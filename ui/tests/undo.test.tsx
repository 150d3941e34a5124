import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, test, vi } from "vitest";
import { useEvent } from "../src/api/events";
import type { ProveView } from "../src/api/proof";
import { Keys } from "../src/app/keys";
import { UndoLast } from "../src/app/UndoLast";
import { bringUp } from "../src/app/underHand";
import { ProveRoom } from "../src/rooms/prove/ProveRoom";
import { example } from "./examples";
import { draw, serve, TRACE } from "./render";

const OUTLOOK = {
  revision: 8,
  standing: "undecided",
  named: [],
  sentence: "",
  next_step: { stage: "trace", words: "Measure: Heater, element", part: "heater", test: "heater.element" },
};
const CHANGE = { kind: "changed", part: "heater", intervention: "replaced" } as const;
const JOB = { status: 201, body: TRACE.job };

beforeEach(() => {
  localStorage.clear();
  document.body.innerHTML = "";
});

/** A room in which something can be done. */
function Room() {
  const record = useEvent("j-1");
  return (
    <Keys jobId="j-1">
      <button type="button" onClick={() => record.mutate(CHANGE)}>
        do it
      </button>
      <UndoLast jobId="j-1" />
    </Keys>
  );
}

/** A server that knows what was written last. */
function serveLast(of: "record" | "leak_test" | "reading", refusal?: string) {
  let id = "of another window";
  const sent = serve({ "/withdrawal": { body: TRACE } });
  const before = globalThis.fetch;
  globalThis.fetch = async (input, init) => {
    const request = (input as Request).clone();
    if (request.url.endsWith("/outlook")) {
      return Response.json({ ...OUTLOOK, undo: { id, of, words: "heater: another one fitted" } });
    }
    if (!request.url.endsWith("/events")) return before(input, init);
    const body = await request.json();
    sent.push({ path: "/events", body });
    if (refusal && body.body.kind !== "changed") {
      const problem = { type: "", title: "no", status: 409, detail: refusal };
      return new Response(JSON.stringify(problem), {
        status: 409,
        headers: { "Content-Type": "application/problem+json" },
      });
    }
    id = body.body.kind === "changed" ? body.id : "of another window";
    return Response.json(JOB.body, { status: 201 });
  };
  return sent;
}

const acts = (sent: { path: string; body: Record<string, unknown> }[]) =>
  sent.filter((row) => row.path.endsWith("/events")).map((row) => row.body.body);

describe("what was done last", () => {
  test("is undone by one touch where it was done, and then gone", async () => {
    const sent = serveLast("record");
    draw(<Room />);
    await waitFor(() => expect(sent).toHaveLength(0));
    expect(screen.queryByRole("button", { name: "Undo" })).toBeNull();
    fireEvent.click(screen.getByText("do it"));
    fireEvent.click(await screen.findByRole("button", { name: "Undo" }));
    expect(screen.getByText("Heater: another one fitted")).toBeInTheDocument();
    await waitFor(() => expect(screen.queryByRole("button", { name: "Undo" })).toBeNull());
    const [done, undone] = sent.map((row) => row.body);
    expect(undone?.body).toEqual({ kind: "record_withdrawn", record: done?.id });
  });

  test.each([
    ["leak_test", "run_withdrawn"],
    ["reading", "withdrawal"],
  ] as const)("goes back in its own way: %s", async (of, way) => {
    const sent = serveLast(of);
    draw(<Room />);
    fireEvent.click(screen.getByText("do it"));
    await screen.findByRole("button", { name: "Undo" });
    fireEvent.keyDown(window, { key: "u" });
    await waitFor(() =>
      expect(
        sent.some(
          (row) => row.path.endsWith(way) || (row.body.body as { kind?: string } | undefined)?.kind === way,
        ),
      ).toBe(true),
    );
  });

  test("asked for while another act is on its way waits for it, and takes that one back", async () => {
    const sent = serveLast("record");
    draw(<Room />);
    fireEvent.click(screen.getByText("do it"));
    await screen.findByRole("button", { name: "Undo" });
    const answer = globalThis.fetch;
    let release = () => undefined as unknown;
    const gate = new Promise<void>((resolve) => {
      release = resolve as () => unknown;
    });
    globalThis.fetch = async (input, init) => {
      if ((input as Request).url.endsWith("/events")) await gate;
      return answer(input, init);
    };
    fireEvent.click(screen.getByText("do it"));
    await waitFor(() => expect(screen.getByRole("button", { name: "Undo" })).toBeDisabled());
    fireEvent.keyDown(window, { key: "u" });
    release();
    await waitFor(() => expect(acts(sent)).toHaveLength(3));
    const [, second, undone] = sent.map((row) => row.body);
    expect(undone?.body).toEqual({ kind: "record_withdrawn", record: second?.id });
  });

  test("that cannot be undone says why, and stays", async () => {
    const sent = serveLast("record", "'run: trips' tells how the machine stands, and is not undone");
    draw(<Room />);
    fireEvent.click(screen.getByText("do it"));
    fireEvent.click(await screen.findByRole("button", { name: "Undo" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("tells how the machine stands");
    expect(screen.getByRole("button", { name: "Undo" })).toBeInTheDocument();
    expect(acts(sent)).toHaveLength(2);
  });
});

describe("the step that is due", () => {
  const main = (inner: string) => {
    document.body.innerHTML = `<main>${inner}</main>`;
    Element.prototype.scrollIntoView = vi.fn();
    bringUp();
    return document.activeElement?.id ?? "";
  };

  test.each([
    ["its field is under the hand", '<li aria-current="step"><input id="reads" data-pad=""></li>', "reads"],
    ["never a tick", '<li aria-current="step"><input type="checkbox" id="seen"></li>', ""],
    [
      "nothing that the machine does not stand for",
      '<li aria-current="step" data-stands="false"><input id="reads" data-pad=""></li>',
      "",
    ],
    ["nothing in what is not due", '<li><input id="reads" data-pad=""></li>', ""],
  ])("%s", (_, inner, focused) => {
    expect(main(inner)).toBe(focused);
  });

  test("on a phone raises no letters", () => {
    vi.stubGlobal("matchMedia", () => ({ matches: true }));
    expect(main('<section aria-current="step"><input id="why"></section>')).toBe("");
    expect(main('<section aria-current="step"><input id="reads" data-pad=""></section>')).toBe("reads");
    vi.unstubAllGlobals();
  });

  test("is followed when it moves on, and not taken on arrival", async () => {
    const proof = example<ProveView>("proof");
    const rows = proof.criteria.map((row) => ({ ...row, is_next: false, stands: true }));
    const reading = rows.filter((row) => row.kind === "reading");
    expect(reading.length).toBeGreaterThan(1);
    const at = (id: string | undefined): ProveView => ({
      ...proof,
      job: { ...proof.job, id: "j-1" },
      is_over: false,
      criteria: rows.map((row) => ({ ...row, is_next: row.id === id })),
    });
    serve({
      "/proof": [{ body: at(reading[0]?.id) }, { body: at(reading[1]?.id) }, { body: at(reading[1]?.id) }],
      "/readings": { status: 201, body: TRACE },
      "/outlook": { body: { ...OUTLOOK, undo: null } },
    });
    draw(
      <main>
        <ProveRoom />
      </main>,
      "prove",
    );
    const field = (await screen.findAllByRole("textbox")).find((row) => row.dataset.pad !== undefined);
    expect(field).not.toHaveFocus();
    fireEvent.change(field as HTMLElement, { target: { value: "0.07" } });
    fireEvent.submit((field as HTMLInputElement).form as HTMLFormElement);
    await waitFor(() => {
      const next = document.querySelector('[aria-current="step"] input');
      expect(next).toHaveFocus();
      expect(next).not.toBe(field);
    });
  });
});
