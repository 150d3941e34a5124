import { IconX } from "@tabler/icons-react";
import { type ChangeEvent, type FormEvent, useState } from "react";
import type { Codes, Meaning, SchemeView } from "../../api/client";
import { useKeepMeanings } from "../../api/codes";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { meanings as words } from "../../words/codes";

const EMPTY = { code: "", words: "", suspects: "" };

/** The technician's own table of what codes mean on this type: searched, typed, imported. */
export function MeaningsCard({ view, scheme }: { view: Codes; scheme: SchemeView }) {
  const [find, setFind] = useState("");
  const [row, setRow] = useState(EMPTY);
  const [problem, setProblem] = useState("");
  const keep = useKeepMeanings(view.job.id, view.job.sheet, scheme.id);
  const send = async (wanted: Meaning[] | File) => {
    try {
      await keep.mutateAsync(wanted);
      setProblem("");
      return true;
    } catch (error) {
      setProblem((error as Error).message);
      return false;
    }
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const others = scheme.meanings.filter((old) => old.code !== row.code.trim());
    const made = { code: row.code, words: row.words, suspects: weighed(row.suspects) };
    if (await send([...others, made])) setRow(EMPTY);
  };
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (file) await send(file);
    input.value = "";
  };
  const wanted = find.toLowerCase();
  const shown = scheme.meanings.filter((old) => `${old.code} ${old.words}`.toLowerCase().includes(wanted));
  return (
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      {scheme.meanings.length > 3 && (
        <Field
          aria-label={words.find}
          placeholder={words.find}
          value={find}
          onChange={(typed) => setFind(typed)}
        />
      )}
      {scheme.meanings.length === 0 && <p className="quiet none">{words.none}</p>}
      <ul className="meanings">
        {shown.map((old) => (
          <li key={old.code}>
            <b className="mono">{old.code}</b>
            <span>{old.words}</span>
            <Act
              look="bare"
              aria-label={words.remove(old.code)}
              onClick={() => void send(scheme.meanings.filter((kept) => kept.code !== old.code))}
            >
              <IconX size={18} aria-hidden />
            </Act>
          </li>
        ))}
      </ul>
      <form className="stack" onSubmit={(event) => void add(event)}>
        <div className="meaning-entry">
          {(["code", "words", "suspects"] as const).map((name) => (
            <Field
              key={name}
              className={`meaning-${name}`}
              aria-label={words[name]}
              placeholder={words[name]}
              value={row[name]}
              maxLength={300}
              onChange={(typed) => setRow({ ...row, [name]: typed })}
            />
          ))}
        </div>
        <Problem text={problem} />
        <div className="row">
          <Act look="plain" type="submit" disabled={!row.code.trim() || !row.words.trim()}>
            {words.add}
          </Act>
          <Act as="label" look="plain" className="photo-pick">
            {words.import}
            <input type="file" accept=".csv,text/csv" onChange={(event) => void choose(event)} />
          </Act>
        </div>
      </form>
      <p className="quiet none">{words.importHelp}</p>
    </Card>
  );
}

/** "heater:0.6; ntc:0.2" as weights; a part without one has all of it. */
function weighed(typed: string): Record<string, number> {
  const entries = typed
    .split(";")
    .map((entry) => entry.trim())
    .filter(Boolean)
    .map((entry) => entry.split(":").map((word) => word.trim()));
  return Object.fromEntries(
    entries.map(([part, weight]) => [part ?? "", weight ? Number(weight.replace(",", ".")) : 1]),
  );
}
