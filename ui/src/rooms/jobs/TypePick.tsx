import type { SheetTitle } from "../../api/sheets";
import { jobs as words } from "../../words/jobs";

type Props = { sheets: SheetTitle[]; value: string; onChange: (id: string) => void };

/** The types of machine, all in sight: one touch chooses one, and none is chosen beforehand. */
export function TypePick({ sheets, value, onChange }: Props) {
  return (
    <fieldset className="type-pick">
      <legend>{words.sheet}</legend>
      <div>
        {sheets.map((sheet) => (
          <label key={sheet.id}>
            <input
              type="radio"
              name="sheet"
              value={sheet.id}
              checked={value === sheet.id}
              onChange={() => onChange(sheet.id)}
            />
            <span>
              <b>{sheet.title}</b>
              <small>{[...(sheet.is_own ? [] : [sheet.id]), sheet.supply].join(" · ")}</small>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
