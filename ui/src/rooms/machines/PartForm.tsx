import type { Kind, Raw, SheetView } from "../../api/sheets";
import { machines as words } from "../../words/machines";
import { Choice, Field, Remarks } from "./fields";

type Props = {
  part: Raw;
  index: number;
  kind: Kind | undefined;
  panels: string[];
  view: SheetView;
  onChange: (part: Raw) => void;
};

/** One part: what it is called, where it sits, what is printed on it, and figures of one's own for its tests. */
export function PartForm({ part, index, kind, panels, view, onChange }: Props) {
  const set = (change: Raw) => onChange(without({ ...part, ...change }));
  const ratings = (part.ratings ?? {}) as Raw;
  const rate = (name: string, value: unknown) => set({ ratings: without({ ...ratings, [name]: value }) });
  return (
    <div className="part-form">
      <Remarks remarks={view.remarks} at={["parts", index]} />
      <div className="sheet-grid">
        <Field label={words.part.title} value={part.title} onChange={(title) => set({ title })} />
        <Field label={words.part.id} value={part.id} onChange={(id) => set({ id })} />
        <Choice
          label={words.part.behind}
          value={String(part.behind ?? "")}
          choices={[
            { value: "", label: words.part.noPanel },
            ...panels.map((id) => ({ value: id, label: id })),
          ]}
          onChange={(behind) => set({ behind })}
        />
        <Field label={words.part.price} value={part.price} onChange={(price) => set({ price })} />
        <label className="sheet-tick">
          <input
            type="checkbox"
            checked={part.chassis === true}
            onChange={(event) => set({ chassis: event.currentTarget.checked })}
          />
          {words.part.chassis}
        </label>
      </div>
      {kind && kind.fields.length > 0 && (
        <div className="sheet-grid">
          {kind.fields.map((field) => {
            const label = field.name.replaceAll("_", " ");
            const value = ratings[field.name];
            if (field.entry === "choice")
              return (
                <Choice
                  key={field.name}
                  label={label}
                  value={String(value ?? field.choices[0] ?? "")}
                  choices={field.choices.map((choice) => ({ value: choice, label: choice }))}
                  onChange={(choice) => rate(field.name, choice)}
                />
              );
            if (field.entry === "structure")
              return (
                <Field
                  key={field.name}
                  label={`${label}, ${words.part.structure}`}
                  value={typeof value === "object" ? JSON.stringify(value) : value}
                  onChange={(text) => rate(field.name, parsed(text))}
                />
              );
            return (
              <Field
                key={field.name}
                label={label}
                value={value}
                onChange={(text) => rate(field.name, text)}
              />
            );
          })}
        </div>
      )}
      <ExpectsTable part={part} tests={view.tests.filter((test) => test.part === part.id)} onChange={set} />
    </div>
  );
}

type ExpectsProps = { part: Raw; tests: SheetView["tests"]; onChange: (change: Raw) => void };
const ENDS = ["lo", "hi", "nominal", "source"] as const;

function ExpectsTable({ part, tests, onChange }: ExpectsProps) {
  const expects = (part.expects ?? {}) as Record<string, Raw>;
  if (tests.length === 0) return null;
  const set = (test: string, end: string, value: string) => {
    const own = without({ ...expects[test], [end]: value });
    const next: Record<string, Raw> = { ...expects, [test]: own };
    if (Object.keys(own).length === 0) delete next[test];
    onChange({ expects: next });
  };
  return (
    <details>
      <summary>{words.expects.title}</summary>
      <p className="quiet">{words.expects.help}</p>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>{words.expects.test}</th>
            {ENDS.map((end) => (
              <th key={end}>{words.expects[end]}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {tests.map((test) => (
            <tr key={test.name}>
              <th scope="row">
                {test.title}
                <span className="quiet">
                  {words.expects.should} {test.should}
                </span>
              </th>
              {ENDS.map((end) => (
                <td key={end}>
                  <Field
                    isBare
                    label={`${test.title}, ${words.expects[end]}`}
                    placeholder={end === "source" ? "" : test.unit}
                    value={expects[test.name]?.[end]}
                    onChange={(text) => set(test.name, end, text)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** What was typed as structure; text that is none stays text, and the sheet says so. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Emptied entries are left out. */
function without(entry: Raw): Raw {
  return Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== "" && value !== undefined));
}
