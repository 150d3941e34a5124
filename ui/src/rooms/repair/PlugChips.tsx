import { Chip } from "../../app/controls/Chip";

type Plug = { id: string; words: string };
type Props = {
  plugs: Plug[];
  chosen: string[];
  say?: (plug: Plug, isChosen: boolean) => string;
  onChoose: (chosen: string[]) => void;
};

/** Plugs to be chosen, each by one touch. */
export function PlugChips({ plugs, chosen, say = (plug) => plug.words, onChoose }: Props) {
  return plugs.map((plug) => {
    const isChosen = chosen.includes(plug.id);
    return (
      <Chip
        key={plug.id}
        isOn={isChosen}
        onClick={() => onChoose(isChosen ? chosen.filter((id) => id !== plug.id) : [...chosen, plug.id])}
      >
        {say(plug, isChosen)}
      </Chip>
    );
  });
}
