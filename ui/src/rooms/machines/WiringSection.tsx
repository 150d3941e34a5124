import type { Raw, SheetView } from "../../api/sheets";
import { Card } from "../../app/controls/Card";
import { machines as words } from "../../words/machines";
import { Field, Remarks } from "./fields";

type Nets = Record<string, string[]>;
type Props = { raw: Raw; view: SheetView; isOwn: boolean; onChange: (change: Raw) => void };

/** Every pin with the wire it is on; pins on wires of the same name are joined. */
export function WiringSection({ raw, view, isOwn, onChange }: Props) {
  const nets = netsOf(raw);
  const netOf = new Map(Object.entries(nets).flatMap(([name, pins]) => pins.map((pin) => [pin, name])));
  const points = withWired(view.points, netOf);
  const parts = [...new Set(points.map((point) => point.name.split(".")[0] ?? ""))];
  const wire = (pin: string, text: string) => onChange({ nets: joined(nets, pin, text) });
  const row = (pin: string, label: string, mayBeFree: boolean) => {
    const net = netOf.get(pin) ?? "";
    const others = (nets[net] ?? []).filter((other) => other !== pin);
    return (
      <div key={pin} className="pin-row">
        <span>{label}</span>
        <Field isBare label={label} value={net} list="nets" onChange={(text) => wire(pin, text)} />
        <span className="quiet">
          {others.length > 0 ? `${words.with} ${others.join(", ")}` : mayBeFree ? words.free : words.nothing}
        </span>
      </div>
    );
  };
  return (
    <Card aria-label={words.wiring}>
      <h2>{words.wiring}</h2>
      <p className="quiet">{words.wiringHelp}</p>
      <Remarks remarks={view.remarks.filter((remark) => remark.path[0] === "nets")} at={["nets"]} />
      <datalist id="nets">
        {Object.keys(nets).map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <fieldset disabled={!isOwn}>
        {row("chassis", "chassis", false)}
        {parts.map((part) => {
          const own = points.filter((point) => point.name.startsWith(`${part}.`));
          const loose = own.filter((point) => !point.may_be_free && !netOf.has(point.name)).length;
          return (
            <details key={part}>
              <summary>
                {own[0]?.label.split(",")[0]} <span className="quiet">{part}</span>
                {loose > 0 && <span className="part-count">{loose}</span>}
              </summary>
              {own.map((point) =>
                row(point.name, point.label.split(", ").slice(1).join(", "), point.may_be_free),
              )}
            </details>
          );
        })}
      </fieldset>
    </Card>
  );
}

type Point = SheetView["points"][number];

/** All points, with those that a wire names although their part cannot be read just now. */
function withWired(points: Point[], netOf: Map<string, string>): Point[] {
  const known = new Set(points.map((point) => point.name));
  const others = [...netOf.keys()].filter((pin) => pin !== "chassis" && !known.has(pin));
  return [...points, ...others.map((name) => ({ name, label: name.replace(".", ", "), may_be_free: false }))];
}

/** The nets of a draft that can be read as such. */
function netsOf(raw: Raw): Nets {
  const entries = Object.entries((raw.nets ?? {}) as Raw);
  return Object.fromEntries(entries.filter((entry): entry is [string, string[]] => Array.isArray(entry[1])));
}

/** Put a pin on a wire, taking it off the one that it was on; a wire without pins goes. */
export function joined(nets: Nets, pin: string, text: string): Nets {
  const name = text
    .trim()
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, "_");
  const without = Object.entries(nets).map(([id, pins]): [string, string[]] => [
    id,
    pins.filter((other) => other !== pin),
  ]);
  const next = Object.fromEntries(without);
  if (name) next[name] = [...(next[name] ?? []), pin];
  return Object.fromEntries(Object.entries(next).filter(([, pins]) => pins.length > 0));
}
