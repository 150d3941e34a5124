import { NumberInput } from "@mantine/core";
import type { SchemeView } from "../../api/client";
import { Lamp } from "../../drawings/Lamp";
import { codes as words } from "../../words/codes";

type Props = { scheme: SchemeView; pattern: string; onPattern: (pattern: string) => void };

/** The lamps of a scheme to tap, one row for each picture; counted blinks are numbers. */
export function LampRows({ scheme, pattern, onPattern }: Props) {
  if (scheme.groups > 0) return <Blinks scheme={scheme} pattern={pattern} onPattern={onPattern} />;
  const frames = pattern.split("/");
  const tap = (frame: number, lamp: number) => {
    const next = frames.map((row, at) => (at === frame ? flipped(row, lamp) : row));
    onPattern(next.join("/"));
  };
  return (
    <div className="lamp-frames">
      {frames.map((row, frame) => {
        const name =
          scheme.marker && (frame === 0 ? words.frameOn(scheme.marker) : words.frameOff(scheme.marker));
        return (
          <fieldset key={frame} className="lamp-row" style={columns(row.length)}>
            <legend className={name ? "" : "hidden"}>{name || scheme.title}</legend>
            {[...row].map((sign, lamp) => (
              <button
                type="button"
                key={lamp}
                className="lamp-key"
                aria-pressed={sign === "1"}
                onClick={() => tap(frame, lamp)}
              >
                <Lamp isLit={sign === "1"} />
                <span>{scheme.lamps[lamp]}</span>
                <b className="mono">{scheme.weights[lamp]}</b>
              </button>
            ))}
          </fieldset>
        );
      })}
    </div>
  );
}

function Blinks({ scheme, pattern, onPattern }: Props) {
  const counts = pattern ? pattern.split("-") : Array.from({ length: scheme.groups }, () => "");
  const set = (group: number, count: string) => {
    const next = counts.map((old, at) => (at === group ? count : old));
    onPattern(next.every(Boolean) ? next.join("-") : next.some(Boolean) ? next.join("-") : "");
  };
  return (
    <div className="row">
      {counts.map((count, group) => (
        <NumberInput
          key={group}
          size="md"
          label={words.blinks(group + 1)}
          min={1}
          max={20}
          value={count}
          onChange={(value) => set(group, String(value))}
        />
      ))}
    </div>
  );
}

function flipped(row: string, lamp: number): string {
  return [...row].map((sign, at) => (at === lamp ? (sign === "1" ? "0" : "1") : sign)).join("");
}

/** One row of lamps stays one row; on a phone only as long as a thumb still meets each of them. */
function columns(lamps: number) {
  return { "--lamps": lamps, "--lamps-narrow": lamps > 5 ? 4 : lamps } as React.CSSProperties;
}
