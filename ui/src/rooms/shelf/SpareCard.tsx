import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import type { Verdict } from "../../api/client";
import { type ShelfView, type SpareView, useKeepSpare, useMeasureSpare } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { usePad } from "../../app/Keypad";
import { Problem } from "../../app/Problem";
import { VerdictMark } from "../../drawings/VerdictMark";
import { shelf as words } from "../../words/shelf";
import { SpareForm } from "./SpareForm";

/** One piece with its mark, where it is, and its acceptance readings. */
export function SpareCard({ row, view }: { row: SpareView; view: ShelfView }) {
  const keep = useKeepSpare();
  const [isEditing, setIsEditing] = useState(false);
  const { spare } = row;
  const { readings: _, ...body } = spare;
  const scrap = () =>
    keep.mutate({
      id: row.id,
      body: { ...body, revision: row.revision, is_scrapped: !spare.is_scrapped },
    });
  return (
    <Card className="spare" aria-label={`${row.title}, ${row.mark}`}>
      <div className="spare-head">
        <h2>
          {row.title} <span className="spare-mark">{row.mark}</span>
        </h2>
        <b>{spare.is_scrapped ? words.scrapped : row.soundness_words}</b>
      </div>
      <p className="quiet">
        {[row.sheet_title, spare.type_number, spare.variant].filter(Boolean).join(" · ")}
      </p>
      <p>
        <b>{row.where}</b>
        {row.job && (
          <>
            {" "}
            <Link to={`/jobs/${row.job}/repair`}>{words.toJob}</Link>
          </>
        )}
      </p>
      {spare.origin === "salvaged" && <p>{words.salvaged(spare.salvaged_from ?? "", spare.tested ?? "")}</p>}
      {spare.words && <p>{spare.words}</p>}
      {isEditing ? (
        <SpareForm view={view} row={row} onDone={() => setIsEditing(false)} />
      ) : (
        <>
          <ul className="spare-tests">
            {row.rows.map((test) => (
              <AcceptanceLine key={test.test} id={row.id} row={test} isOpen={!spare.is_scrapped} />
            ))}
          </ul>
          <div className="row wrap">
            <Act look="plain" onClick={() => setIsEditing(true)}>
              {words.edit}
            </Act>
            <Act look="bare" onClick={scrap}>
              {spare.is_scrapped ? words.unscrap : words.scrap}
            </Act>
          </div>
        </>
      )}
      <Problem error={keep.error} />
    </Card>
  );
}

type LineProps = { id: string; row: SpareView["rows"][number]; isOpen: boolean };

function AcceptanceLine({ id, row, isOpen }: LineProps) {
  const measure = useMeasureSpare();
  const pad = usePad();
  const [text, setText] = useState("");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    try {
      await measure.mutateAsync({ id, test: row.test, text });
      setText("");
    } catch {
      // said below
    }
  };
  return (
    <li>
      <VerdictMark verdict={row.reads ? (row.verdict as Verdict) : null} size={34} />
      <span>
        <b>{row.title}</b> <span className="quiet">{row.should}</span>
        {isOpen && row.advice && <span className="quiet spare-advice">{row.advice}</span>}
      </span>
      <span title={row.by}>
        {row.reads ? (
          <>
            <b className="mono">{row.reads}</b> <span className="quiet">{row.remark}</span>
          </>
        ) : (
          <span className="quiet">{words.notMade}</span>
        )}
      </span>
      {isOpen && (
        <form className="row" onSubmit={(event) => void submit(event)}>
          <input
            className="mono figure-field"
            {...pad}
            aria-label={words.measure(row.title)}
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
          <Act look="plain" type="submit" disabled={measure.isPending}>
            {words.log}
          </Act>
        </form>
      )}
      <Problem error={measure.error} />
    </li>
  );
}
