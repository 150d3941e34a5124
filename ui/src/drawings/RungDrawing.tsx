import { useElementSize } from "@mantine/hooks";
import type { Rungs } from "../api/client";
import { rungs as words } from "../words/trace";
import "./rungs.css";

type View = Rungs["view"];
type Mark = View["rungs"][number]["marks"][number];

const STEP = 76;
const TOP = 34;
const FOOT = 78;
const MARGIN = 26;

type Props = { view: View; chosen: string | null; onChoose: (test: string) => void };

/** The machine as a ladder: what is driven is inked, open contacts gap the rung, pulled plugs lift it out. */
export function RungDrawing({ view, chosen, onChoose }: Props) {
  const { ref, width } = useElementSize();
  const inner = Math.max(240, width) - 2 * MARGIN;
  const at = (fraction: number) => MARGIN + inner * fraction;
  const bottom = TOP + STEP * view.rungs.length;
  return (
    <div ref={ref} className="rung-drawing">
      <svg width={inner + 2 * MARGIN} height={bottom + FOOT}>
        <title>{words.title}</title>
        <Rail x={MARGIN} letter="L" bottom={bottom} />
        <Rail x={MARGIN + inner} letter="N" bottom={bottom} />
        {view.rungs.map((rung, index) => (
          <g
            key={rung.title + rung.marks.map((mark) => mark.label).join()}
            transform={`translate(0 ${TOP + 14 + STEP * index})`}
          >
            {rung.stretches.map((stretch) => (
              <line
                key={stretch.x0}
                className={`rung-wire ${stretch.ink}`}
                x1={at(stretch.x0)}
                x2={at(stretch.x1)}
                y1={0}
                y2={0}
              />
            ))}
            {rung.marks.map((mark) => (
              <MarkButton
                key={`${mark.part}-${mark.label}-${mark.x}`}
                mark={mark}
                x={at(mark.x)}
                room={inner / (rung.marks.length + 1)}
                isChosen={mark.test !== "" && mark.test === chosen}
                onChoose={onChoose}
              />
            ))}
          </g>
        ))}
        <Comb view={view} at={at} y={bottom + 34} chosen={chosen} onChoose={onChoose} />
      </svg>
    </div>
  );
}

function Rail({ x, letter, bottom }: { x: number; letter: string; bottom: number }) {
  return (
    <>
      <line className="rung-rail" x1={x} x2={x} y1={22} y2={bottom} />
      <text className="rung-pole" x={x} y={16} textAnchor="middle">
        {letter}
      </text>
    </>
  );
}

type MarkProps = {
  mark: Mark;
  x: number;
  room: number;
  isChosen: boolean;
  onChoose: (test: string) => void;
};

function MarkButton({ mark, x, room, isChosen, onChoose }: MarkProps) {
  const choose = () => mark.test && onChoose(mark.test);
  const said = [mark.label, mark.is_open && words.open, mark.is_pulled && words.pulled, words.ink[mark.ink]]
    .filter(Boolean)
    .join(", ");
  const isWide = room > 96;
  return (
    // biome-ignore lint/a11y/useSemanticElements: an SVG group has no button element
    <g
      className={`rung-mark ${mark.kind} ${mark.ink} ${isChosen ? "chosen" : ""}`}
      transform={`translate(${x} ${mark.is_pulled ? -14 : 0})`}
      role="button"
      tabIndex={mark.test ? 0 : -1}
      aria-label={said}
      aria-pressed={isChosen}
      onClick={choose}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && choose()}
    >
      <rect
        className="rung-touch"
        x={-Math.min(48, room / 2)}
        y={-24}
        width={Math.min(96, room)}
        height={64}
      />
      <Shape mark={mark} room={room} />
      {mark.probe_left && <Probe x={-26} />}
      {mark.probe_right && <Probe x={26} />}
      {(isWide || (mark.kind === "load" && room > 60) || isChosen) && (
        <text className="rung-label" y={32} textAnchor="middle" aria-hidden>
          {fitted(mark.label, room)}
        </text>
      )}
    </g>
  );
}

/** As many whole words of a label as there is room for. */
function fitted(label: string, room: number): string {
  const most = Math.max(5, Math.floor(room / 7));
  if (label.length <= most) return label;
  const words = label.split(/,? /);
  let shown = words[0] ?? "";
  for (const word of words.slice(1)) {
    if (shown.length + word.length + 1 > most) break;
    shown = `${shown} ${word}`;
  }
  return shown;
}

function Shape({ mark, room }: { mark: Mark; room: number }) {
  const half = Math.min(24, room / 2 - 3);
  if (mark.kind === "load")
    return <rect className="rung-shape" x={-half} y={-12} width={2 * half} height={24} rx={4} />;
  if (mark.kind === "junction") return <path className="rung-shape" d="M-7 -8L7 0L-7 8ZM7 -8V8" />;
  if (mark.kind === "capacitor") return <path className="rung-shape" d="M-5 -13V13M5 -13V13" />;
  if (mark.kind === "contact") {
    return (
      <>
        <rect className="rung-gap" x={-15} y={-6} width={30} height={12} />
        <path className="rung-shape" d={mark.is_open ? "M-15 0L12 -15" : "M-15 0L15 -3"} />
        <circle className="rung-dot" cx={-15} cy={0} r={3} />
        <circle className="rung-dot" cx={15} cy={0} r={3} />
      </>
    );
  }
  return <circle className="rung-shape" r={5} />;
}

function Probe({ x }: { x: number }) {
  return <path className="rung-probe" d={`M${x} 0l-6 -16h12z`} />;
}

type CombProps = {
  view: View;
  at: (fraction: number) => number;
  y: number;
  chosen: string | null;
  onChoose: (test: string) => void;
};

function Comb({ view, at, y, chosen, onChoose }: CombProps) {
  return (
    <g>
      <line className="rung-rail" x1={at(0)} x2={at(1)} y1={y} y2={y} />
      {view.comb.map((tooth, index) => (
        // biome-ignore lint/a11y/useSemanticElements: an SVG group has no button element
        <g
          key={tooth.part}
          role="button"
          tabIndex={tooth.test ? 0 : -1}
          aria-label={`${words.earth}: ${tooth.label}`}
          aria-pressed={tooth.test !== "" && tooth.test === chosen}
          className={`rung-mark tooth ${tooth.test !== "" && tooth.test === chosen ? "chosen" : ""}`}
          transform={`translate(${at((index + 1) / (view.comb.length + 1))} ${y})`}
          onClick={() => tooth.test && onChoose(tooth.test)}
          onKeyDown={(event) => event.key === "Enter" && tooth.test && onChoose(tooth.test)}
        >
          <rect className="rung-touch" x={-44} y={-16} width={88} height={52} />
          <line className="rung-rail" x1={0} x2={0} y1={0} y2={-14} />
          {tooth.probe && <path className="rung-probe" d="M0 -14l-6 -14h12z" />}
          <text className="rung-label" y={24} textAnchor="middle" aria-hidden>
            {fitted(tooth.label, (at(1) - at(0)) / (view.comb.length + 1))}
          </text>
        </g>
      ))}
    </g>
  );
}
