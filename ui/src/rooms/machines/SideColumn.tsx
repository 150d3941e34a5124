import { useState } from "react";
import { type SheetView, useBlindSpots } from "../../api/sheets";
import { Card } from "../../app/controls/Card";
import { RungDrawing } from "../../drawings/RungDrawing";
import { machines as words } from "../../words/machines";
import { said } from "./fields";

/** What is to be said of the sheet, its ladder at rest, and what its tests cannot see. */
export function SideColumn({ view }: { view: SheetView }) {
  const [isAsked, setAsked] = useState(false);
  const blind = useBlindSpots(view.id, isAsked);
  return (
    <>
      <Card aria-label={words.remarks} aria-live="polite">
        <h2>{words.remarks}</h2>
        {view.remarks.length === 0 && <p className="none">{words.faultless}</p>}
        {view.remarks.map((remark) => (
          <p key={remark.path.join() + remark.message} className={remark.refused ? "problem" : "notice"}>
            {said(remark, 0, view.raw.parts)}
          </p>
        ))}
      </Card>
      <Card aria-label={words.ladder}>
        <h2>{words.ladder}</h2>
        {view.ladder ? (
          <RungDrawing view={view.ladder} chosen={null} onChoose={() => undefined} />
        ) : (
          <p className="quiet">{words.noLadder}</p>
        )}
      </Card>
      <Card aria-label={words.blind}>
        <details onToggle={(event) => setAsked(event.currentTarget.open)}>
          <summary>{words.blind}</summary>
          <p className="quiet">{words.blindHelp}</p>
          {blind.error && <p className="problem">{blind.error.message}</p>}
          {blind.data && (
            <>
              <h3>{words.unseen}</h3>
              <ul>
                {blind.data.unseen.map((row) => (
                  <li key={row.part}>
                    <b>{row.part}</b>: {row.faults.join("; ")}
                  </li>
                ))}
              </ul>
              <h3>{words.pairs}</h3>
              {blind.data.inseparable.length === 0 && <p className="none">{words.allApart}</p>}
              <ul>
                {blind.data.inseparable.map(([one, other]) => (
                  <li key={`${one} ${other}`}>
                    {one}, {other}
                  </li>
                ))}
              </ul>
            </>
          )}
        </details>
      </Card>
    </>
  );
}
