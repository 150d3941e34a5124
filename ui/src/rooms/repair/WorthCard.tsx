import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import { type Assumptions, type RepairView, useWorth } from "../../api/repair";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { repair as words } from "../../words/repair";
import { WorthForm } from "./WorthForm";

/** Every way to go on with what it is expected to cost, the cheapest year first. */
export function WorthCard({ view }: { view: RepairView }) {
  const [part, setPart] = useState(view.leader);
  const [given, setGiven] = useState<Assumptions | null>(null);
  const { data, error } = useWorth(view.job.id, part, given);
  const dearest = Math.max(1, ...(data?.choices.map((row) => row.per_year) ?? []));
  return (
    <Card aria-label={words.worth}>
      <h2>{words.worth}</h2>
      <NativeSelect
        label={words.about}
        value={part}
        data={view.parts.map((row) => ({ value: row.id, label: row.words }))}
        onChange={(event) => {
          setPart(event.currentTarget.value);
          setGiven(null);
        }}
      />
      <Problem error={error} />
      {data && (
        <>
          <p className="big">{data.advice}</p>
          <ul className="worth">
            {data.choices.map((row) => (
              <li key={row.id}>
                <span className="worth-title">{row.title}</span>
                <span className="worth-bar" aria-hidden="true">
                  <span style={{ width: `${(100 * row.per_year) / dearest}%` }} />
                </span>
                <span className="worth-year">
                  <b className="mono">{row.per_year.toFixed(0)}</b> {words.columns.perYear.toLowerCase()}
                </span>
                <span className="quiet worth-more">
                  {words.columns.now.toLowerCase()} <b className="mono">{row.now.toFixed(0)}</b>,{" "}
                  {words.columns.expected.toLowerCase()} <b className="mono">{row.expected.toFixed(0)}</b>,{" "}
                  {words.columns.years.toLowerCase()} <b className="mono">{row.years.toFixed(1)}</b>
                </span>
              </li>
            ))}
          </ul>
          <p className="quiet">{words.per}</p>
          <ul className="quiet">
            {data.assumed.map((row) => (
              <li key={row}>{row}</li>
            ))}
          </ul>
          <details>
            <summary>{words.assume}</summary>
            <WorthForm
              key={`${data.part} ${given === null}`}
              given={data.given}
              onReckon={setGiven}
              onUsual={() => setGiven(null)}
            />
          </details>
        </>
      )}
    </Card>
  );
}
