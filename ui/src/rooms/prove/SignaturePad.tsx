import { type PointerEvent, useRef } from "react";
import type { Schemas } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { prove } from "../../words/prove";

type Strokes = Schemas["Signature"]["strokes"];
type Stroke = Strokes[number];
export type SignatureDraft = { name: string; strokes: Strokes };

const words = prove.signature;
const WIDE = 1000;
const HIGH = 300;
/** Points nearer than this to the one before add nothing to the line. */
const NEAR = 6;
const MOST_STROKES = 60;
const MOST_POINTS = 600;

type Props = { draft: SignatureDraft; onChange: (draft: SignatureDraft) => void };

/** The customer's name, and a field to sign in with a finger, a pen or the mouse. */
export function SignaturePad({ draft, onChange }: Props) {
  const drawing = useRef<Stroke | null>(null);
  const at = (event: PointerEvent<SVGSVGElement>): Stroke[number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const across = ((event.clientX - box.left) / (box.width || 1)) * WIDE;
    const down = ((event.clientY - box.top) / (box.height || 1)) * HIGH;
    return [held(across, WIDE), held(down, HIGH)];
  };
  const show = (stroke: Stroke, isNew: boolean) => {
    drawing.current = stroke;
    const before = isNew ? draft.strokes : draft.strokes.slice(0, -1);
    onChange({ ...draft, strokes: [...before, stroke] });
  };
  const begin = (event: PointerEvent<SVGSVGElement>) => {
    if (draft.strokes.length >= MOST_STROKES) return;
    event.currentTarget.setPointerCapture?.(event.pointerId);
    show([at(event)], true);
  };
  const go = (event: PointerEvent<SVGSVGElement>) => {
    const stroke = drawing.current;
    const last = stroke?.at(-1);
    if (!stroke || !last || stroke.length >= MOST_POINTS) return;
    const point = at(event);
    if (Math.hypot(point[0] - last[0], point[1] - last[1]) >= NEAR) show([...stroke, point], false);
  };
  const end = () => {
    drawing.current = null;
  };
  return (
    <fieldset className="signature">
      <legend>{words.title}</legend>
      <p className="quiet">{words.help}</p>
      <Field
        label={words.name}
        value={draft.name}
        maxLength={80}
        onChange={(name) => onChange({ ...draft, name })}
      />
      <svg
        className="signature-field"
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={draft.strokes.length > 0 ? words.signed : words.field}
        onPointerDown={begin}
        onPointerMove={go}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <line x1={60} x2={WIDE - 60} y1={HIGH - 60} y2={HIGH - 60} className="signature-line" />
        {draft.strokes.map((stroke, place) => (
          <polyline key={place} points={pathOf(stroke)} />
        ))}
      </svg>
      {draft.strokes.length > 0 && (
        <Act look="plain" onClick={() => onChange({ ...draft, strokes: [] })}>
          {words.clear}
        </Act>
      )}
    </fieldset>
  );
}

function held(value: number, most: number): number {
  return Math.round(Math.min(most, Math.max(0, value)));
}

/** One touch is a dot: a line of one point draws nothing. */
function pathOf(stroke: Stroke): string {
  const points =
    stroke.length > 1 ? stroke : stroke.flatMap(([x, y]) => [[x, y] as const, [x + 3, y] as const]);
  return points.map(([x, y]) => `${x},${y}`).join(" ");
}
