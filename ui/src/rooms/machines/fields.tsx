import { useEffect, useState } from "react";
import type { SheetView } from "../../api/sheets";
import { figure } from "./figure";

type Remark = SheetView["remarks"][number];

type FieldProps = {
  label: string;
  value: unknown;
  onChange: (text: string) => void;
  /** Whether its name is said to readers only, as in a table whose head says it. */
  isBare?: boolean;
  placeholder?: string;
  list?: string;
};

/** A line of text that is taken over when it is left, so that nothing changes under the typing hand. */
export function Field({ label, value, onChange, isBare = false, placeholder, list }: FieldProps) {
  const shown = figure(value);
  const [text, setText] = useState(shown);
  useEffect(() => setText(shown), [shown]);
  const leave = () => text !== shown && onChange(text);
  return (
    <label className={isBare ? "sheet-field bare" : "sheet-field"}>
      <span className={isBare ? "hidden" : undefined}>{label}</span>
      <input
        value={text}
        placeholder={placeholder}
        list={list}
        maxLength={4000}
        onChange={(event) => setText(event.currentTarget.value)}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && leave()}
      />
    </label>
  );
}

type ChoiceProps = {
  label: string;
  value: string;
  choices: { value: string; label: string }[];
  onChange: (value: string) => void;
};

export function Choice({ label, value, choices, onChange }: ChoiceProps) {
  return (
    <label className="sheet-field">
      <span>{label}</span>
      <select className="pick" value={value} onChange={(event) => onChange(event.currentTarget.value)}>
        {choices.map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What is said of one place of the sheet. */
export function Remarks({ remarks, at }: { remarks: Remark[]; at: (string | number)[] }) {
  const own = remarks.filter((remark) => at.every((key, index) => remark.path[index] === key));
  return (
    <>
      {own.map((remark) => (
        <p key={remark.path.join() + remark.message} className={remark.refused ? "problem" : "notice"}>
          {said(remark, at.length)}
        </p>
      ))}
    </>
  );
}

/** A remark with the keys that lead to it from where it stands; a part by its name, not by its number. */
export function said(remark: Remark, from = 0, parts: unknown = []): string {
  const keys = remark.path.slice(from).filter((key) => key !== "ratings");
  if (keys[0] === "parts" && typeof keys[1] === "number") {
    const part = Array.isArray(parts) ? (parts[keys[1]] as { id?: unknown } | undefined) : undefined;
    keys.splice(0, 2, String(part?.id ?? `part ${keys[1] + 1}`));
  }
  const where = keys.join(", ").replaceAll("_", " ");
  return where ? `${where}: ${remark.message}` : remark.message;
}

/** Commas between names, both ways. */
export const listed = (value: unknown): string => (Array.isArray(value) ? value.join(", ") : figure(value));
export const unlisted = (text: string): string[] =>
  text
    .split(",")
    .map((word) => word.trim())
    .filter(Boolean);
