import { fireEvent, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import type { Settings } from "../../src/api/client";
import type { ProveView } from "../../src/api/proof";
import type { SheetOutView } from "../../src/api/sheetOut";
import { SignaturePad } from "../../src/rooms/prove/SignaturePad";
import { SignOff } from "../../src/rooms/prove/SignOff";
import { FirmForm } from "../../src/rooms/setup/FirmForm";
import { CostsCard } from "../../src/rooms/sheetOut/CostsCard";
import { PhotosCard } from "../../src/rooms/sheetOut/PhotosCard";
import { SheetOutRoom } from "../../src/rooms/sheetOut/SheetOutRoom";
import { example } from "../examples";
import { draw, serve } from "../render";

beforeEach(() => localStorage.clear());

const settings = example<Settings>("settings");
const proveView = example<ProveView>("proof");
const sheetOut = example<SheetOutView>("sheet-out");

/** jsdom lays nothing out: the field gets a size of its own. */
function sized(field: Element) {
  field.getBoundingClientRect = () => ({ left: 10, top: 20, width: 500, height: 150 }) as DOMRect;
  return field;
}

/** jsdom knows no pointer with a place: a mouse event under its name has one. */
function pointer(field: Element, kind: string, x: number, y: number) {
  fireEvent(field, new MouseEvent(`pointer${kind}`, { bubbles: true, clientX: x, clientY: y }));
}

function stroke(field: Element, ...points: [number, number][]) {
  const [first, ...rest] = points as [[number, number], ...[number, number][]];
  pointer(field, "down", ...first);
  for (const point of rest) pointer(field, "move", ...point);
  pointer(field, "up", ...(rest.at(-1) ?? first));
}

describe("the customer's signature", () => {
  function Pad() {
    const [draft, setDraft] = useState({ name: "", strokes: [] as [number, number][][] });
    return (
      <>
        <SignaturePad draft={draft} onChange={setDraft} />
        <output>{JSON.stringify(draft.strokes)}</output>
      </>
    );
  }
  const drawn = () => JSON.parse(screen.getByRole("status").textContent ?? "");

  it("keeps every stroke in steps of its field, near points and what leaves the field held", () => {
    draw(<Pad />);
    const field = sized(screen.getByRole("img", { name: "Field to sign in" }));
    stroke(field, [60, 70], [61, 70], [110, 95], [900, -40]);
    stroke(field, [260, 95]);
    expect(drawn()).toEqual([
      [
        [100, 100],
        [200, 150],
        [1000, 0],
      ],
      [[500, 150]],
    ]);
    pointer(field, "move", 300, 100);
    expect(drawn()).toHaveLength(2);
    fireEvent.click(screen.getByRole("button", { name: "Clear the signature" }));
    expect(drawn()).toEqual([]);
  });

  const free = { ...proveView, is_over: false, blocking: [] };
  const sign = () =>
    stroke(sized(screen.getByRole("img", { name: "Field to sign in" })), [60, 70], [110, 95]);
  const end = () => fireEvent.click(screen.getByRole("button", { name: "End the job as safe" }));

  it("goes out with the ending, and is forgotten once that is stored", async () => {
    const sent = serve({ "/settings": { body: settings }, "/events": { status: 201, body: {} } });
    draw(<SignOff view={free} />);
    fireEvent.change(screen.getByLabelText("What was done, in one sentence"), {
      target: { value: "Mended." },
    });
    fireEvent.change(screen.getByLabelText("Customer's name"), { target: { value: "H. Marsh" } });
    sign();
    end();
    const ended = () => sent.find((row) => row.path.endsWith("/events"))?.body.body;
    await waitFor(() => expect(ended()).toMatchObject({ kind: "ended", why: "Mended." }));
    expect(ended()).toMatchObject({
      signature: {
        name: "H. Marsh",
        strokes: [
          [
            [100, 100],
            [200, 150],
          ],
        ],
      },
    });
    await waitFor(() => expect(screen.getByLabelText("Customer's name")).toHaveValue(""));
  });

  it("is not sent by halves, and not at all where nobody signs", async () => {
    const sent = serve({ "/settings": { body: settings }, "/events": { status: 201, body: {} } });
    draw(<SignOff view={free} />);
    sign();
    end();
    expect(await screen.findByRole("alert")).toHaveTextContent("signs with a name and a signature");
    expect(sent.filter((row) => row.path.endsWith("/events"))).toEqual([]);
    fireEvent.click(screen.getByRole("button", { name: "Clear the signature" }));
    end();
    await waitFor(() => expect(sent.some((row) => row.path.endsWith("/events"))).toBe(true));
    expect(sent.find((row) => row.path.endsWith("/events"))?.body.body).not.toHaveProperty("signature");
  });
});

describe("the sheet that goes out", () => {
  const photo = {
    id: "p-1",
    role: "found",
    event: "",
    address: "/a.jpg",
    small: "/s.jpg",
    width: 4,
    height: 3,
    at: "",
  };
  const photos = [photo, { ...photo, id: "p-2", role: "plate" }];

  it("has the photos that were touched, in their order, and lets them off again", async () => {
    const sent = serve({ "/events": { status: 201, body: {} } });
    const { redraw } = draw(<PhotosCard view={{ ...sheetOut, is_signed: false, photos, chosen: ["p-2"] }} />);
    fireEvent.click(screen.getByRole("button", { name: "On the sheet: photo 1, found" }));
    await waitFor(() =>
      expect(sent[0]?.body.body).toEqual({ kind: "photos_chosen", photos: ["p-2", "p-1"] }),
    );
    const chosen = screen.getByRole("button", { name: "On the sheet: photo 2, plate" });
    expect(chosen).toHaveAttribute("aria-pressed", "true");
    await waitFor(() => expect(chosen).toBeEnabled());
    fireEvent.click(chosen);
    await waitFor(() => expect(sent[1]?.body.body).toEqual({ kind: "photos_chosen", photos: [] }));
    redraw(<PhotosCard view={{ ...sheetOut, is_signed: true, photos, chosen: ["p-2"] }} />);
    expect(screen.getByRole("button", { name: "On the sheet: photo 1, found" })).toBeDisabled();
    redraw(<PhotosCard view={{ ...sheetOut, photos: [], chosen: [] }} />);
    expect(screen.queryByText("Photos on the sheet")).not.toBeInTheDocument();
  });

  it("shows the customer's page under its headings, and who signed it", async () => {
    const customer = [{ title: "Is it safe?", sentences: ["All 10 tests are good.", "Keep it dry."] }];
    const view = { ...sheetOut, customer, is_signed: true, signature: "H. Marsh" };
    serve({ "/sheet-out": { body: view } });
    draw(<SheetOutRoom />, "sheet-out");
    expect(await screen.findByRole("heading", { name: "Is it safe?" })).toBeInTheDocument();
    expect(screen.getByText("Keep it dry.")).toBeInTheDocument();
    expect(screen.getByText("Signed by H. Marsh.")).toBeInTheDocument();
  });

  it("says with how much tax its total is, and keeps currency and tax as they were proposed", async () => {
    const sent = serve({ "/events": { status: 201, body: {} } });
    const costs = { ...sheetOut.costs, currency: "EUR", tax_name: "VAT", tax_percent: 20, minutes: 30 };
    draw(<CostsCard view={{ ...sheetOut, is_signed: false, costs, total: "78.00 EUR" }} />);
    expect(screen.getByText("Total, with 20 % VAT")).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: /^Save the costs/ }));
    await waitFor(() =>
      expect(sent[0]?.body.body).toMatchObject({ currency: "EUR", tax_name: "VAT", tax_percent: 20 }),
    );
  });
});

describe("the firm in Setup", () => {
  const form = (over: Partial<Settings> = {}) => <FirmForm settings={{ ...settings, ...over }} />;

  it("is saved as one, a decimal comma in the tax, words in it told", async () => {
    const sent = serve({ "/settings": { body: settings } });
    draw(form());
    fireEvent.change(screen.getByLabelText("Name of the firm"), { target: { value: "Quay Electric" } });
    fireEvent.change(screen.getByLabelText("Address"), { target: { value: "Slipway 2\nReedmere" } });
    const tax = screen.getByLabelText("Tax, % on top of the prices");
    fireEvent.change(tax, { target: { value: "some" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the firm" }));
    expect(screen.getByRole("alert")).toHaveTextContent("Tax, % on top of the prices: not a number");
    fireEvent.change(tax, { target: { value: "7,7" } });
    fireEvent.click(screen.getByRole("button", { name: "Save the firm" }));
    await waitFor(() =>
      expect(sent.at(-1)?.body.firm).toMatchObject({
        name: "Quay Electric",
        address: "Slipway 2\nReedmere",
        tax_percent: 7.7,
      }),
    );
  });

  it("takes the zone of the device by one touch", () => {
    const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
    draw(form({ firm: { ...settings.firm, zone: "Asia/Kolkata" } }));
    fireEvent.click(screen.getByRole("button", { name: `Use ${here}` }));
    expect(screen.getByLabelText("Time zone of the papers", { selector: "input" })).toHaveValue(here);
  });

  it("takes a mark, says what is wrong with one, and removes it", async () => {
    const refused = {
      status: 422,
      body: { type: "/problems/input", detail: "a.svg is not a picture that can be read" },
    };
    const sent: string[] = [];
    globalThis.fetch = async (input) => {
      const request = input as Request;
      sent.push(request.method);
      const isRefused = request.method === "PUT" && sent.length === 1;
      return new Response(JSON.stringify(isRefused ? refused.body : { ...settings, mark: "" }), {
        status: isRefused ? refused.status : 200,
        headers: { "Content-Type": isRefused ? "application/problem+json" : "application/json" },
      });
    };
    draw(form({ mark: "abc" }));
    expect(screen.getByRole("img", { name: "The firm's mark" })).toHaveAttribute("src", "/api/firm/mark/abc");
    const pick = screen.getByLabelText("Another mark");
    fireEvent.change(pick, { target: { files: [new File(["x"], "a.svg")] } });
    expect(await screen.findByText(/a.svg is not a picture/)).toBeInTheDocument();
    fireEvent.click(screen.getByRole("button", { name: "Remove the mark" }));
    await waitFor(() => expect(sent).toEqual(["PUT", "DELETE"]));
  });
});
