import { useState } from "react";
import { type Raw, type SheetView, useKinds } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { machines as words } from "../../words/machines";
import { Choice } from "./fields";
import { PartForm } from "./PartForm";

type Props = { raw: Raw; view: SheetView; isOwn: boolean; onChange: (part: Raw) => void };

/** All parts in the order of the current, one line each; a line opens into its form. */
export function PartsSection({ raw, view, isOwn, onChange }: Props) {
  const { data: kinds } = useKinds();
  const [open, setOpen] = useState<number | null>(null);
  const [adding, setAdding] = useState("");
  const parts = Array.isArray(raw.parts) ? (raw.parts as Raw[]) : [];
  const titleOf = (kind: unknown) => kinds?.find((row) => row.kind === kind)?.title ?? String(kind);
  const put = (next: Raw[]) => onChange({ parts: next });
  const add = () => {
    const taken = new Set(parts.map((part) => part.id));
    let id = adding;
    for (let number = 2; taken.has(id); number++) id = `${adding}_${number}`;
    put([...parts, { id, kind: adding, ratings: {} }]);
    setOpen(parts.length);
    setAdding("");
  };
  return (
    <Card aria-label={words.parts}>
      <h2>{words.parts}</h2>
      <ol className="part-list">
        {parts.map((part, index) => {
          const count = view.remarks.filter((row) => row.path[0] === "parts" && row.path[1] === index).length;
          return (
            // The key is the place: the id of a part is being typed.
            <li key={index}>
              <button
                type="button"
                className="part-line"
                aria-expanded={open === index}
                onClick={() => setOpen(open === index ? null : index)}
              >
                <b>{String(part.title ?? titleOf(part.kind))}</b>
                <span className="quiet">{String(part.id ?? "")}</span>
                <span className="quiet grow">{rated(part)}</span>
                {count > 0 && <span className="part-count">{count}</span>}
              </button>
              {open === index && (
                <fieldset disabled={!isOwn}>
                  <PartForm
                    part={part}
                    index={index}
                    kind={kinds?.find((row) => row.kind === part.kind)}
                    panels={Object.keys((raw.panels ?? {}) as Raw)}
                    view={view}
                    onChange={(next) => put(parts.map((row, at) => (at === index ? next : row)))}
                  />
                </fieldset>
              )}
              {isOwn && open === index && (
                <div className="row part-acts">
                  <Act
                    look="plain"
                    disabled={index === 0}
                    onClick={() => {
                      put(moved(parts, index));
                      setOpen(index - 1);
                    }}
                  >
                    {words.part.up}
                  </Act>
                  <Act
                    look="plain"
                    onClick={() => {
                      put(parts.filter((_, at) => at !== index));
                      setOpen(null);
                    }}
                  >
                    {words.part.remove}
                  </Act>
                </div>
              )}
            </li>
          );
        })}
      </ol>
      {isOwn && kinds && (
        <div className="sheet-add">
          <Choice
            label={words.part.kind}
            value={adding}
            choices={[
              { value: "", label: "" },
              ...kinds.map((row) => ({ value: row.kind, label: row.title })),
            ]}
            onChange={setAdding}
          />
          <Act look="plain" disabled={!adding} onClick={add}>
            {words.part.add}
          </Act>
        </div>
      )}
    </Card>
  );
}

/** The figures printed on a part, in one line. */
function rated(part: Raw): string {
  const ratings = Object.entries((part.ratings ?? {}) as Raw).filter(
    ([, value]) => typeof value !== "object",
  );
  const units: Record<string, string> = { watts: "W", volts: "V", hertz: "Hz" };
  return ratings
    .slice(0, 3)
    .map(([name, value]) => (units[name] ? `${value} ${units[name]}` : ""))
    .filter(Boolean)
    .join(" · ");
}

function moved(parts: Raw[], index: number): Raw[] {
  const next = [...parts];
  const [taken] = next.splice(index, 1);
  if (taken) next.splice(index - 1, 0, taken);
  return next;
}
