import { useState } from "react";
import { useRungs } from "../../api/trace";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { RungDrawing } from "../../drawings/RungDrawing";
import { rungs as words } from "../../words/trace";

type Props = { jobId: string; chosen: string | null; onChoose: (test: string) => void; onBack: () => void };

/** The ladder in the configuration that is chosen here; at first that of the test in question. */
export function LadderPanel({ jobId, chosen, onChoose, onBack }: Props) {
  const [own, setOwn] = useState<{ states: Record<string, string>; pulled: string[] } | null>(null);
  const { data, error } = useRungs(jobId, chosen, own);
  if (error) return <p className="problem ladder-problem">{error.message}</p>;
  if (!data) return <p className="quiet ladder-problem">{words.loading}</p>;
  // What was chosen here stands at once; the drawing follows when it is there.
  const now = own ?? {
    states: Object.fromEntries(data.states.map((state) => [state.name, state.value])),
    pulled: data.plugs.filter((plug) => plug.is_pulled).map((plug) => plug.id),
  };
  const set = (name: string, value: string) =>
    setOwn((before) => ({ ...(before ?? now), states: { ...(before ?? now).states, [name]: value } }));
  const toggle = (plug: string) =>
    setOwn((before) => {
      const { states, pulled } = before ?? now;
      return {
        states,
        pulled: pulled.includes(plug) ? pulled.filter((id) => id !== plug) : [...pulled, plug],
      };
    });
  return (
    <Card className="ladder" aria-label={words.title}>
      <div className="ladder-states">
        {data.states.map((state) => (
          <label key={state.name}>
            {state.name.replaceAll("_", " ")}
            <select
              className="pick"
              value={now.states[state.name]}
              onChange={(event) => set(state.name, event.currentTarget.value)}
            >
              {state.values.map((value) => (
                <option key={value}>{value}</option>
              ))}
            </select>
          </label>
        ))}
        <Act look="plain" disabled={own === null} onClick={() => setOwn(null)}>
          {words.asTest}
        </Act>
        <Act look="plain" onClick={onBack}>
          {words.sheet}
        </Act>
        <Act as="a" look="plain" href={`/api/jobs/${jobId}/rungs.svg?${data.asked}`} download>
          {words.picture}
        </Act>
      </div>
      <p className="quiet ladder-trunk">
        {words.trunk}: {data.view.trunk.map((mark) => mark.label).join(" · ")}
      </p>
      <RungDrawing view={data.view} chosen={chosen} onChoose={onChoose} />
      <dl className="ladder-poles">
        {(["from_line", "only_from_neutral", "not_reached"] as const).map((pole) => (
          <div key={pole}>
            <dt>{words.poles[pole]}</dt>
            <dd>{data[pole].join(", ") || words.noPart}</dd>
          </div>
        ))}
      </dl>
      <details>
        <summary>{words.plugs}</summary>
        <div className="chips">
          {data.plugs.map((plug) => (
            <Chip key={plug.id} isOn={now.pulled.includes(plug.id)} onClick={() => toggle(plug.id)}>
              {plug.title}
            </Chip>
          ))}
        </div>
      </details>
    </Card>
  );
}
