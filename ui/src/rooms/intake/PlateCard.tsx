import { NativeSelect, Textarea } from "@mantine/core";
import { useState } from "react";
import type { Intake, NewIntake } from "../../api/client";
import { useCopySheet, useSheets } from "../../api/sheets";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field, NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
import { plate as words } from "../../words/intake";
import { PlatePhoto } from "./PlatePhoto";
import type { useIntakeDraft } from "./useIntakeDraft";

type Draft = ReturnType<typeof useIntakeDraft>;
type Plate = NewIntake["plate"];
type Figure = "volts" | "hertz" | "watts";

/** Which machine it is, by its plate; what does not fit together is said at once. */
export function PlateCard({ view, intake }: { view: Intake; intake: Draft }) {
  const { plate } = intake.draft;
  const { volts = null, hertz = null, watts = null, protection_class = "" } = view.as_sheet;
  const isBlank = !plate.volts && !plate.hertz && !plate.watts && !plate.protection_class;
  const set = (part: Partial<Plate>) => intake.change({ plate: { ...plate, ...part } });
  return (
    <Card isStack id="plate" aria-label={words.title}>
      <h2>{words.title}</h2>
      <div className="pair">
        <Field
          label={words.machine}
          value={intake.draft.machine}
          maxLength={120}
          onChange={(typed) => intake.change({ machine: typed })}
        />
        <Field
          label={words.place}
          value={intake.draft.place}
          maxLength={120}
          onChange={(typed) => intake.change({ place: typed })}
        />
      </div>
      <SheetChoice intake={intake} />
      <div className="pair">
        <Field
          label={words.type}
          placeholder={words.typeHelp}
          value={plate.type_number ?? ""}
          maxLength={80}
          onChange={(typed) => set({ type_number: typed })}
        />
        <Field
          label={words.serial}
          value={plate.serial ?? ""}
          maxLength={80}
          onChange={(typed) => set({ serial: typed })}
        />
      </div>
      <div className="figures">
        {(["volts", "hertz", "watts"] as Figure[]).map((name) => (
          <FigureField
            key={name}
            label={words[name]}
            value={plate[name] ?? null}
            onChange={(value) => set({ [name]: value })}
          />
        ))}
        <NativeSelect
          label={words.class}
          value={plate.protection_class ?? ""}
          data={["", "I", "II"]}
          onChange={(event) =>
            set({ protection_class: event.currentTarget.value as NonNullable<Plate["protection_class"]> })
          }
        />
      </div>
      {isBlank && (
        <Act look="plain" onClick={() => set({ volts, hertz, watts, protection_class })}>
          {words.asSheet(`${volts} V, ${hertz} Hz, ${watts} W`, protection_class)}
        </Act>
      )}
      {view.remarks.length > 0 && (
        <ul className="remarks" role="status">
          {view.remarks.map((remark) => (
            <li key={remark}>{remark}</li>
          ))}
        </ul>
      )}
      <Textarea
        label={words.variants}
        placeholder={words.variantsHelp}
        value={plate.variants ?? ""}
        autosize
        minRows={1}
        maxLength={1000}
        onChange={(event) => set({ variants: event.currentTarget.value })}
      />
      <PlatePhoto view={view} />
    </Card>
  );
}

/** A figure of the plate; what is no number stays in the field and is not kept. */
function FigureField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null ? "" : String(value));
  const isBad = text !== null && text.trim() !== "" && Number.isNaN(figure(text));
  return (
    <NumberField
      label={label}
      value={shown}
      maxLength={12}
      error={isBad ? words.notNumber : undefined}
      onChange={(said) => {
        const typed = said;
        const number = figure(typed);
        setText(typed);
        if (typed.trim() === "") onChange(null);
        else if (!Number.isNaN(number)) onChange(number);
      }}
      onBlur={() => !isBad && setText(null)}
    />
  );
}

function SheetChoice({ intake }: { intake: Draft }) {
  const { data: sheets } = useSheets();
  const copy = useCopySheet();
  const [title, setTitle] = useState<string | null>(null);
  const copyIt = async () => {
    const made = await copy.mutateAsync({ of: intake.draft.sheet, title: title ?? "" });
    intake.change({ sheet: made.id });
    setTitle(null);
  };
  return (
    <div className="stack">
      <div className="row sheet-choice">
        <NativeSelect
          className="grow"
          label={words.sheet}
          value={intake.draft.sheet}
          data={(sheets ?? []).map((sheet) => ({
            value: sheet.id,
            label: sheet.is_own ? sheet.title : `${sheet.id} · ${sheet.title}`,
          }))}
          onChange={(event) => intake.change({ sheet: event.currentTarget.value })}
        />
        <Act look="plain" onClick={() => setTitle("")}>
          {words.copy}
        </Act>
      </div>
      {title !== null && (
        <div className="row">
          <Field
            className="grow"
            aria-label={words.copyTitle}
            placeholder={words.copyTitle}
            value={title}
            maxLength={120}
            error={copy.error?.message}
            onChange={(typed) => setTitle(typed)}
          />
          <Act
            disabled={!title.trim() || copy.isPending}
            onClick={() => void copyIt().catch(() => undefined)}
          >
            {words.copyDo}
          </Act>
        </div>
      )}
    </div>
  );
}
