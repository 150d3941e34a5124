import { useState } from "react";
import type { Raw, SheetView } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { figure } from "../../app/figure";
import { machines as words } from "../../words/machines";
import { Field, listed, Remarks, unlisted } from "./fields";

/** A column of a table of named things: its key, its head, and whether it holds names with commas between. */
type Column = { key: string; label: string; isList?: boolean };
type Props = {
  title: string;
  section: "panels" | "plugs" | "states";
  columns: Column[];
  addWord: string;
  fresh: unknown;
  raw: Raw;
  remarks: SheetView["remarks"];
  isOwn: boolean;
  onChange: (change: Raw) => void;
};

/** Panels, plugs or states: one line each, by name. */
export function NamedRows({ title, section, columns, addWord, fresh, raw, remarks, isOwn, onChange }: Props) {
  const [name, setName] = useState("");
  const entries = (raw[section] ?? {}) as Record<string, unknown>;
  const put = (next: Record<string, unknown>) => onChange({ [section]: next });
  const read = (entry: unknown, column: Column) =>
    column.key ? (entry as Raw | null)?.[column.key] : (entry as unknown);
  const write = (id: string, column: Column, text: string) => {
    const value = column.isList ? unlisted(text) : column.key === "minutes" ? numbered(text) : text;
    put({ ...entries, [id]: column.key ? { ...(entries[id] as Raw), [column.key]: value } : value });
  };
  const remove = (id: string) =>
    put(Object.fromEntries(Object.entries(entries).filter(([key]) => key !== id)));
  return (
    <Card aria-label={title}>
      <h2>{title}</h2>
      <fieldset disabled={!isOwn}>
        {Object.entries(entries).map(([id, entry]) => (
          <div key={id} className="named-row">
            <b>{id.replaceAll("_", " ")}</b>
            {columns.map((column) => (
              <Field
                key={column.key}
                label={column.label}
                value={column.isList ? listed(read(entry, column)) : read(entry, column)}
                onChange={(text) => write(id, column, text)}
              />
            ))}
            {isOwn && (
              <Act look="bare" onClick={() => remove(id)}>
                {words.remove}
              </Act>
            )}
            <Remarks remarks={remarks} at={[section, id]} />
          </div>
        ))}
        {isOwn && (
          <div className="sheet-add">
            <Field label={words.name} value={name} onChange={setName} />
            <Act
              look="plain"
              disabled={!name}
              onClick={() => {
                put({ ...entries, [name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "_")]: fresh });
                setName("");
              }}
            >
              {addWord}
            </Act>
          </div>
        )}
      </fieldset>
    </Card>
  );
}

function numbered(text: string): unknown {
  const value = figure(text);
  return Number.isNaN(value) ? text : value;
}
