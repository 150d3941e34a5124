import { useState } from "react";
import { useRungs } from "../../api/rooms";
import { RungDrawing } from "../../drawings/RungDrawing";
import { rungs as words } from "../../words/trace";

type Props = { jobId: string; chosen: string | null; onChoose: (test: string) => void };

/** The ladder in the configuration that is chosen here; at first that of the test in question. */
export function LadderPanel({ jobId, chosen, onChoose }: Props) {
  const [own, setOwn] = useState<{ states: Record<string, string>; pulled: string[] } | null>(null);
  const { data, error } = useRungs(jobId, chosen, own);
  if (error) return <p className="problem ladder-problem">{error.message}</p>;
  if (!data) return <p className="quiet ladder-problem">{words.loading}</p>;
  const now = {
    states: Object.fromEntries(data.states.map((state) => [state.name, state.value])),
    pulled: data.plugs.filter((plug) => plug.is_pulled).map((plug) => plug.id),
  };
  const toggle = (plug: string) =>
    setOwn({
      ...now,
      pulled: now.pulled.includes(plug) ? now.pulled.filter((id) => id !== plug) : [...now.pulled, plug],
    });
  return (
    <section className="card ladder" aria-label={words.title}>
      <div className="ladder-states">
        {data.states.map((state) => (
          <label key={state.name}>
            {state.name.replaceAll("_", " ")}
            <select
              className="pick"
              value={state.value}
              onChange={(event) =>
                setOwn({ ...now, states: { ...now.states, [state.name]: event.currentTarget.value } })
              }
            >
              {state.values.map((value) => (
                <option key={value}>{value}</option>
              ))}
            </select>
          </label>
        ))}
        <button type="button" className="plain bordered" disabled={own === null} onClick={() => setOwn(null)}>
          {words.asTest}
        </button>
        <a className="plain bordered" href={`/api/jobs/${jobId}/rungs.svg?${data.asked}`} download>
          {words.picture}
        </a>
      </div>
      <p className="quiet ladder-trunk">
        {words.trunk}: {data.view.trunk.map((mark) => mark.label).join(" · ")}
      </p>
      <RungDrawing view={data.view} chosen={chosen} onChoose={onChoose} />
      <details>
        <summary>{words.plugs}</summary>
        <div className="chips">
          {data.plugs.map((plug) => (
            <button
              type="button"
              key={plug.id}
              className="chip"
              aria-pressed={plug.is_pulled}
              onClick={() => toggle(plug.id)}
            >
              {plug.title}
            </button>
          ))}
        </div>
      </details>
    </section>
  );
}
