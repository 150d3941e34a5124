import { reading as words } from "../words/frame";
import { Chip } from "./controls/Chip";

export type Door = keyof typeof words.doors;

type Props = { door: Door | null; onSay: (door: Door) => void };

/** How door or lid stands now: asked before the figure of its contact is taken. */
export function DoorAsked({ door, onSay }: Props) {
  return (
    <fieldset className="door-asked chips">
      <legend>{words.doorNow}</legend>
      {(Object.keys(words.doors) as Door[]).map((way) => (
        <Chip key={way} isOn={door === way} onClick={() => onSay(way)}>
          {words.doors[way]}
        </Chip>
      ))}
    </fieldset>
  );
}
