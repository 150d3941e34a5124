import { useElementSize } from "@mantine/hooks";
import type { Schemas, Verdict } from "../api/client";
import { trace, verdictWords } from "../words/trace";
import { verdictColour } from "./VerdictMark";

type Ruler = Schemas["OhmRuler"];
export type Ghost = { x: number; verdict: Verdict | null; label: string };

const HEIGHT = 112;
const BAR = { top: 46, height: 40 };
const MARGIN = { left: 14, right: 22 };
const NARROW = 620;

type Expected = { part: string; title: string; position: number | null };
type Props = {
  ruler: Ruler;
  chosen: string | null;
  ghost: Ghost | null;
  expected?: Expected[];
  caption: string;
};

/** One logarithmic ruler; windows stand on it as bands, readings as pins. Coordinates come from the core. */
export function OhmRuler({ ruler, chosen, ghost, expected = [], caption }: Props) {
  const { ref, width } = useElementSize();
  const inner = Math.max(0, width - MARGIN.left - MARGIN.right);
  const at = (x: number) => MARGIN.left + x * inner;
  const isNarrow = width < NARROW;
  const band = ruler.bands.find((b) => b.line === chosen);
  const pins = [...ruler.pins].sort((a, b) => Number(a.line === chosen) - Number(b.line === chosen));
  return (
    <figure className="ruler">
      <figcaption>
        <b>{trace.ruler}</b>
        <span className="mono">{caption}</span>
      </figcaption>
      <div ref={ref} className="ruler-strip">
        {width > 0 && (
          <svg width={width} height={HEIGHT} aria-hidden="true">
            <rect x={4} y={BAR.top} width={width - 8} height={BAR.height} rx={7} className="ruler-bar" />
            {ruler.ticks.map((tick, index) => (
              <Tick key={tick.x} tick={tick} x={at(tick.x)} isLabelled={!isNarrow || index % 18 === 0} />
            ))}
            {ruler.bands.filter(isNarrowBand).map((b) => (
              <BandMark key={b.line} x0={at(b.x0)} x1={at(b.x1)} className="ruler-band" />
            ))}
            {band && <BandMark x0={at(band.x0)} x1={at(band.x1)} className="ruler-band chosen" />}
            {pins.map((pin) => (
              <PinMark
                key={pin.line}
                pin={pin}
                at={at}
                isLabelled={!isNarrow || pin.line === chosen}
                isChosen={pin.line === chosen}
                endX={width - 4}
              />
            ))}
            {expected.map(
              (row) =>
                row.position !== null && (
                  <ExpectedMark key={row.part} x={at(row.position)} title={row.title} />
                ),
            )}
            {ghost && <GhostMark ghost={ghost} x={at(ghost.x)} endX={width - 4} />}
          </svg>
        )}
      </div>
      <PinTable ruler={ruler} />
    </figure>
  );
}

/** Windows of decades would cover all others: they show only while their line is in question. */
const isNarrowBand = (band: Ruler["bands"][number]) => !band.is_wide;

function Tick({ tick, x, isLabelled }: { tick: Ruler["ticks"][number]; x: number; isLabelled: boolean }) {
  const bottom = BAR.top + BAR.height;
  return (
    <g>
      <line x1={x} x2={x} y1={tick.label ? BAR.top : bottom - 8} y2={bottom} className="ruler-tick" />
      {tick.label && isLabelled && (
        <text
          x={x}
          y={HEIGHT - 8}
          className="ruler-label"
          textAnchor={tick.x === 0 ? "start" : tick.x === 1 ? "end" : "middle"}
        >
          {tick.label}
        </text>
      )}
    </g>
  );
}

function BandMark({ x0, x1, className }: { x0: number; x1: number; className: string }) {
  return (
    <rect
      x={x0}
      y={BAR.top + 7}
      width={Math.max(4, x1 - x0)}
      height={BAR.height - 14}
      rx={4}
      className={className}
    />
  );
}

type PinProps = {
  pin: Ruler["pins"][number];
  at: (x: number) => number;
  isLabelled: boolean;
  isChosen: boolean;
  endX: number;
};

function PinMark({ pin, at, isLabelled, isChosen, endX }: PinProps) {
  const x = at(pin.x);
  const head = BAR.top - 6 - pin.level * 15;
  const colour = verdictColour(pin.verdict);
  const bottom = BAR.top + BAR.height - 3;
  const towards = pin.towards === null || pin.towards === undefined ? null : at(pin.towards);
  return (
    <g style={{ color: colour }} className={isChosen ? "pin chosen" : "pin"}>
      <line x1={x} x2={x} y1={head} y2={bottom} stroke="currentColor" strokeWidth={isChosen ? 4 : 2.6} />
      <circle cx={x} cy={head} r={isChosen ? 6 : 4.5} fill="currentColor" />
      {pin.beyond !== 0 && (
        <path
          d={`M${x} ${BAR.top + 20}h${14 * pin.beyond}m${-6 * pin.beyond} -5l${6 * pin.beyond} 5l${-6 * pin.beyond} 5`}
          className="pin-arrow"
        />
      )}
      {towards !== null && pin.beyond === 0 && Math.abs(towards - x) > 18 && (
        <Reach x={x} towards={towards} />
      )}
      {isLabelled && <PinLabel x={x} y={head + 5} endX={endX} text={pin.label} />}
    </g>
  );
}

/** The arrow from a reading to the window that it misses. */
function Reach({ x, towards }: { x: number; towards: number }) {
  const sign = towards > x ? 1 : -1;
  const tip = towards - 2 * sign;
  const y = BAR.top + BAR.height / 2;
  return (
    <path
      d={`M${x + 6 * sign} ${y}H${tip}M${tip - 9 * sign} ${y - 6}L${tip} ${y}l${-9 * sign} 6`}
      className="pin-arrow"
    />
  );
}

function PinLabel({ x, y, endX, text }: { x: number; y: number; endX: number; text: string }) {
  const isAtEnd = x + 14 + text.length * 10 > endX;
  return (
    <text x={isAtEnd ? x - 9 : x + 9} y={y} className="pin-label mono" textAnchor={isAtEnd ? "end" : "start"}>
      {text}
    </text>
  );
}

/** Where the reading that is being typed would stand. */
function GhostMark({ ghost, x, endX }: { ghost: Ghost; x: number; endX: number }) {
  return (
    <g style={{ color: verdictColour(ghost.verdict) }} className="pin ghost">
      <line
        x1={x}
        x2={x}
        y1={14}
        y2={BAR.top + BAR.height - 3}
        stroke="currentColor"
        strokeWidth="2.4"
        strokeDasharray="4 4"
      />
      <circle cx={x} cy={14} r={6} fill="var(--ground)" stroke="currentColor" strokeWidth="2.4" />
      <PinLabel x={x} y={19} endX={endX} text={ghost.label} />
    </g>
  );
}

/** Where the next test would read under a suspect: a hollow wedge below the bar, told in words beside *Ask next*. */
function ExpectedMark({ x, title }: { x: number; title: string }) {
  const bottom = BAR.top + BAR.height;
  return (
    <g className="expected-pin">
      <title>{title}</title>
      <line x1={x} x2={x} y1={BAR.top + 2} y2={bottom} />
      <path d={`M${x} ${bottom - 2}l6 9h-12z`} />
    </g>
  );
}

function PinTable({ ruler }: { ruler: Ruler }) {
  return (
    <table className="hidden">
      <caption>{trace.rulerTable}</caption>
      <tbody>
        {ruler.pins.map((pin) => (
          <tr key={pin.line}>
            <th scope="row">{pin.line}</th>
            <td>{pin.label} Ω</td>
            <td>{verdictWords[pin.verdict]}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
