import { useElementSize } from "@mantine/hooks";
import type { Schemas, Verdict } from "../api/client";
import { trace, verdictWords } from "../words/trace";
import { verdictColour } from "./VerdictMark";
import "./ruler.css";

type Ruler = Schemas["OhmRuler"];
export type Ghost = { x: number; verdict: Verdict | null; label: string };

const HEIGHT = 112;
const BAR = { top: 46, height: 40 };
/** A row of labels above the bar. */
const LEVEL = 15;
const MARGIN = { left: 14, right: 22 };
/** Beside one another so many readings can be told apart. */
const MOST_LABELS = 8;
const LABEL_PX = 52;
/** Of the ten decades of the ruler. */
const LEAST_STRETCH = 0.2;

type Expected = { part: string; title: string; position: number | null };
type Props = {
  ruler: Ruler;
  /** The lines that stand on it. */
  lines: string[];
  chosen: string | null;
  ghost: Ghost | null;
  expected?: Expected[];
};

/** The stretch of the one logarithmic ruler on which some lines stand: windows as bands, readings as pins. */
export function OhmRuler({ ruler, lines, chosen, ghost, expected = [] }: Props) {
  const { ref, width } = useElementSize();
  const inner = Math.max(0, width - MARGIN.left - MARGIN.right);
  const bands = ruler.bands.filter((row) => lines.includes(row.line));
  const pins = ruler.pins
    .filter((row) => lines.includes(row.line))
    .sort((a, b) => Number(a.line === chosen) - Number(b.line === chosen));
  const places = expected.flatMap((row) => row.position ?? []);
  const [from, to] = stretch([
    ...bands.flatMap((row) => (row.is_wide ? [row.x0] : [row.x0, row.x1])),
    ...pins.flatMap((row) => [row.x, row.towards ?? row.x]),
    ...places,
    ...(ghost ? [ghost.x] : []),
  ]);
  const at = (x: number) => MARGIN.left + Math.min(1, Math.max(0, (x - from) / (to - from))) * inner;
  const ticks = ruler.ticks.filter((tick) => tick.x >= from - 1e-9 && tick.x <= to + 1e-9);
  const labelled = spread(
    ticks.filter((tick) => tick.label),
    at,
  );
  // Where few labels stand above one another, nothing is left empty above them.
  const rows = Math.max(0, ...pins.map((row) => row.level + 1));
  const spare = ghost ? 0 : BAR.top - 6 - LEVEL * rows - 4;
  const band = bands.find((row) => row.line === chosen);
  if (bands.length + pins.length === 0 && !ghost) return null;
  return (
    <figure className="ruler">
      <figcaption className="hidden">{trace.ruler}</figcaption>
      <div ref={ref} className="ruler-strip">
        {width > 0 && (
          <svg
            width={width}
            height={HEIGHT - spare}
            viewBox={`0 ${spare} ${width} ${HEIGHT - spare}`}
            aria-hidden="true"
          >
            <rect x={4} y={BAR.top} width={width - 8} height={BAR.height} rx={7} className="ruler-bar" />
            {ticks.map((tick) => (
              <Tick
                key={tick.x}
                tick={tick}
                x={at(tick.x)}
                isLabelled={labelled.includes(tick)}
                endX={width}
              />
            ))}
            {bands.map((row) => (
              <BandMark key={row.line} x0={at(row.x0)} x1={at(row.x1)} className="ruler-band" />
            ))}
            {band && <BandMark x0={at(band.x0)} x1={at(band.x1)} className="ruler-band chosen" />}
            {pins.map((pin) => (
              <PinMark
                key={pin.line}
                pin={pin}
                at={at}
                isLabelled={pins.length <= MOST_LABELS || pin.line === chosen}
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
      <PinTable pins={pins} />
    </figure>
  );
}

/** The part of the ruler that holds some places, with a little room beside them; never less than two decades of ten. */
function stretch(places: number[]): [number, number] {
  if (places.length === 0) return [0, 1];
  const [least, most] = [Math.min(...places), Math.max(...places)];
  const room = Math.max(LEAST_STRETCH - (most - least), 0.08) / 2;
  const from = Math.min(Math.max(0, least - room), 1 - LEAST_STRETCH);
  return [from, Math.max(Math.min(1, most + room), from + LEAST_STRETCH)];
}

/** Labels that do not run into each other. */
function spread(ticks: Ruler["ticks"], at: (x: number) => number): Ruler["ticks"] {
  let last = Number.NEGATIVE_INFINITY;
  return ticks.filter((tick) => {
    if (at(tick.x) - last < LABEL_PX) return false;
    last = at(tick.x);
    return true;
  });
}

type TickProps = { tick: Ruler["ticks"][number]; x: number; isLabelled: boolean; endX: number };

function Tick({ tick, x, isLabelled, endX }: TickProps) {
  const bottom = BAR.top + BAR.height;
  return (
    <g>
      <line x1={x} x2={x} y1={tick.label ? BAR.top : bottom - 8} y2={bottom} className="ruler-tick" />
      {tick.label && isLabelled && (
        <text
          x={x}
          y={HEIGHT - 8}
          className="ruler-label"
          textAnchor={x < LABEL_PX / 2 ? "start" : x > endX - LABEL_PX / 2 ? "end" : "middle"}
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
  const head = BAR.top - 6 - pin.level * LEVEL;
  const colour = verdictColour(pin.verdict);
  const bottom = BAR.top + BAR.height - 3;
  const towards = pin.towards === null || pin.towards === undefined ? null : at(pin.towards);
  return (
    <g style={{ color: colour }} className={isChosen ? "ruler-pin chosen" : "ruler-pin"}>
      <line x1={x} x2={x} y1={head} y2={bottom} stroke="currentColor" strokeWidth={isChosen ? 4 : 2.6} />
      <circle cx={x} cy={head} r={isChosen ? 6 : 4.5} fill="currentColor" />
      {pin.beyond !== 0 && (
        <path
          d={`M${x} ${BAR.top + 20}h${14 * pin.beyond}m${-6 * pin.beyond} -5l${6 * pin.beyond} 5l${-6 * pin.beyond} 5`}
          className="ruler-arrow"
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
      className="ruler-arrow"
    />
  );
}

function PinLabel({ x, y, endX, text }: { x: number; y: number; endX: number; text: string }) {
  const isAtEnd = x + 14 + text.length * 10 > endX;
  return (
    <text
      x={isAtEnd ? x - 9 : x + 9}
      y={y}
      className="ruler-pin-label mono"
      textAnchor={isAtEnd ? "end" : "start"}
    >
      {text}
    </text>
  );
}

/** Where the reading that is being typed would stand. */
function GhostMark({ ghost, x, endX }: { ghost: Ghost; x: number; endX: number }) {
  return (
    <g style={{ color: verdictColour(ghost.verdict) }} className="ruler-pin ghost">
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
    <g className="ruler-expected">
      <title>{title}</title>
      <line x1={x} x2={x} y1={BAR.top + 2} y2={bottom} />
      <path d={`M${x} ${bottom - 2}l6 9h-12z`} />
    </g>
  );
}

function PinTable({ pins }: { pins: Ruler["pins"] }) {
  return (
    <table className="hidden">
      <caption>{trace.rulerTable}</caption>
      <tbody>
        {pins.map((pin) => (
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
