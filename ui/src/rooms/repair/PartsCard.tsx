import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { type NewWanted, type PartsView, useKeepWanted, useParts, useRemoveWanted } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { replace } from "../../words/repair";
import { parts as words } from "../../words/shelf";
import { WantedForm } from "./WantedForm";

/** Parts that the job wants, how their orders stand, and what the shelf has of them. */
export function PartsCard({ view, sawFail }: { view: RepairView; sawFail: boolean | null }) {
  const { data, error } = useParts(view.job.id);
  const [isAdding, setIsAdding] = useState(false);
  return (
    <Card aria-label={words.title}>
      <h2>{words.title}</h2>
      <Problem error={error} />
      {data?.wanted.length === 0 && !isAdding && <p className="quiet">{words.none}</p>}
      {data?.wanted.map((row) => (
        <WantedRow key={`${row.id} ${row.revision}`} row={row} view={data} repair={view} sawFail={sawFail} />
      ))}
      {data && isAdding && <WantedForm view={data} leader={view.leader} onDone={() => setIsAdding(false)} />}
      <div className="row wrap">
        {!isAdding && (
          <Act look="plain" onClick={() => setIsAdding(true)}>
            {words.add}
          </Act>
        )}
        <Link to="/shelf">{words.toShelf}</Link>
      </div>
    </Card>
  );
}

type RowProps = {
  row: PartsView["wanted"][number];
  view: PartsView;
  repair: RepairView;
  sawFail: boolean | null;
};

function WantedRow({ row, view, repair, sawFail }: RowProps) {
  const isOver = repair.is_over;
  const [isAsked, setIsAsked] = useState(false);
  const keep = useKeepWanted(view.job.id);
  const remove = useRemoveWanted(view.job.id);
  const record = useEvent(view.job.id);
  const [isEditing, setIsEditing] = useState(false);
  const { wanted } = row;
  const fitPiece = (spare: string) => {
    if (repair.asks_saw_fail && sawFail === null) return setIsAsked(true);
    const body = { part: wanted.part, intervention: "replaced" as const, spare, saw_fail: sawFail ?? false };
    record.mutate({ kind: "changed", ...body });
  };
  if (isEditing)
    return <WantedForm view={view} leader={wanted.part} row={row} onDone={() => setIsEditing(false)} />;
  return (
    <div className="wanted">
      <div className="strip-line">
        <b>{row.title}</b>
        <span className="mono">{[row.price, row.days].filter(Boolean).join(" · ")}</span>
      </div>
      <span className="quiet">{[wanted.type_number, wanted.variant].filter(Boolean).join(", ")}</span>
      <div className="row wrap">
        <NativeSelect
          aria-label={`${words.state}: ${row.title}`}
          value={wanted.state}
          data={view.states.map((state) => ({ value: state.id, label: state.words }))}
          onChange={(event) =>
            keep.mutate({
              id: row.id,
              body: bodyOf(row, { state: event.currentTarget.value as "wanted" }),
            })
          }
        />
        <Act look="plain" onClick={() => setIsEditing(true)}>
          {words.edit}
        </Act>
        <Act look="bare" onClick={() => remove.mutate(row.id)}>
          {words.remove}
        </Act>
      </div>
      <h3>{words.shelf}</h3>
      {row.spares.length === 0 && <p className="quiet">{words.noSpare}</p>}
      <ul className="wanted-spares">
        {row.spares.map((found) => (
          <li key={found.spare.id}>
            <span>
              <b>{found.spare.mark}</b> · {found.spare.where} · {found.spare.soundness_words}
              {found.misfits.length === 0 && ` · ${words.fits}`}
            </span>
            {found.misfits.map((said) => (
              <span key={said} className="notice">
                {said}
              </span>
            ))}
            {!isOver && !found.spare.is_in && found.spare.soundness !== "bad" && (
              <Act
                look="plain"
                aria-label={`${words.fit}: ${found.spare.mark}`}
                disabled={record.isPending}
                onClick={() => fitPiece(found.spare.id)}
              >
                {found.misfits.length === 0 ? words.fit : words.fitAnyway}
              </Act>
            )}
          </li>
        ))}
      </ul>
      <Problem
        error={keep.error ?? remove.error ?? record.error}
        text={isAsked && sawFail === null ? replace.askFirst : ""}
      />
    </div>
  );
}

/** A wish as it is sent again, with something changed. */
function bodyOf(row: PartsView["wanted"][number], part: Partial<NewWanted>): NewWanted {
  const { wanted } = row;
  return {
    ...wanted,
    revision: row.revision,
    offers: (wanted.offers ?? []).map((offer) => ({
      ...offer,
      price: offer.price.toFixed(2),
      days: String(offer.days ?? 0),
    })),
    ...part,
  } as NewWanted;
}
