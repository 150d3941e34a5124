import type { Photo, Schemas } from "../../api/client";
import { connector as words } from "../../words/repair";

export type Pin = Schemas["PinMark"];
type Props = {
  photo: Photo;
  pins: Pin[];
  /** Numbers that are ticked, or the one that is chosen. */
  marked: number[];
  onPin?: (pin: Pin) => void;
  onPlace?: (x: number, y: number) => void;
  onNudge?: (pin: Pin, dx: number, dy: number) => void;
};

const STEP = 0.01;
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};

/** A connector's photo with its pins upon it: a touch beside them places one, arrow keys move the one in focus. */
export function ConnectorPhoto({ photo, pins, marked, onPin, onPlace, onNudge }: Props) {
  return (
    <div className="pinned" style={{ aspectRatio: `${photo.width} / ${photo.height}` }}>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: by keyboard the button below adds a pin, and arrows move it */}
      <img
        src={photo.address}
        alt={words.photoOf(pins.length)}
        className={onPlace ? "placing" : undefined}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          onPlace?.((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
        }}
      />
      {pins.map((pin) => (
        <button
          key={pin.number}
          type="button"
          className={pin.is_empty ? "connector-pin empty" : "connector-pin"}
          style={{ left: `${100 * pin.x}%`, top: `${100 * pin.y}%` }}
          aria-pressed={marked.includes(pin.number)}
          aria-label={pinWords(pin)}
          disabled={!onPin}
          onClick={() => onPin?.(pin)}
          onKeyDown={(event) => {
            const move = MOVES[event.key];
            if (!move || !onNudge) return;
            event.preventDefault();
            onNudge(pin, ...move);
          }}
        >
          {pin.number}
        </button>
      ))}
    </div>
  );
}

export function pinWords(pin: Pin): string {
  const said = [pin.label, pin.colour, pin.is_empty ? words.empty : ""].filter(Boolean).join(", ");
  return said ? `${words.pin(pin.number)}: ${said}` : words.pin(pin.number);
}
