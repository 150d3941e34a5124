import { IconBackspace, IconKeyboard, IconSpace } from "@tabler/icons-react";
import { quick } from "../../words/trace";

const SIGNS = ["7", "8", "9", "k", "M", "OL", "4", "5", "6", "µ", "m", ">", "1", "2", "3", ".", " ", "<"];

type Props = {
  onSign: (sign: string) => void;
  onErase: () => void;
  onEnter: () => void;
  onKeyboard: () => void;
};

/** The quick line's keys at phone width, for a thumb. */
export function Keypad({ onSign, onErase, onEnter, onKeyboard }: Props) {
  return (
    <div className="keypad">
      {SIGNS.map((sign) => (
        <button
          type="button"
          key={sign}
          onClick={() => onSign(sign)}
          aria-label={sign === " " ? quick.space : sign}
        >
          {sign === " " ? <IconSpace size={20} aria-hidden /> : sign}
        </button>
      ))}
      <button type="button" onClick={() => onSign("0")}>
        0
      </button>
      <button type="button" onClick={onErase} aria-label={quick.erase}>
        <IconBackspace size={22} aria-hidden />
      </button>
      <button type="button" onClick={onKeyboard} aria-label={quick.keyboard}>
        <IconKeyboard size={22} aria-hidden />
      </button>
      <button type="button" onClick={() => onSign(" at ")}>
        at
      </button>
      <button type="button" className="enter" onClick={onEnter}>
        {quick.enter}
      </button>
    </div>
  );
}
