import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { type NewSpare, type ShelfView, type SpareView, useKeepSpare } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { shelf as words } from "../../words/shelf";

type Props = { view: ShelfView; row?: SpareView; onDone?: () => void };
type TextField = "type_number" | "variant" | "salvaged_from" | "tested" | "place" | "words";

/** A piece for the shelf; what is typed stays until it is kept. */
export function SpareForm({ view, row, onDone }: Props) {
  const keep = useKeepSpare();
  const [id, setId] = useState(() => row?.id ?? crypto.randomUUID());
  const [draft, setDraft, forget] = useForm<NewSpare>(
    `ohmcensus.spare.${row?.id ?? "new"}`,
    startOf(view, row),
  );
  const set = (part: Partial<NewSpare>) => setDraft({ ...draft, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await keep.mutateAsync({ id, body: { ...draft, revision: row?.revision ?? 0 } });
      forget();
      if (!row) setId(crypto.randomUUID());
      onDone?.();
    } catch {
      // said below
    }
  };
  const text = (field: TextField, label: string, placeholder = "") => (
    <Field
      label={label}
      placeholder={placeholder}
      value={draft[field] ?? ""}
      onChange={(typed) => set({ [field]: typed })}
    />
  );
  const partsOf = (sheet: string) => view.parts[sheet] ?? [];
  return (
    <form className="stack" aria-label={words.add} onSubmit={(event) => void submit(event)}>
      <NativeSelect
        label={words.sheet}
        value={draft.sheet}
        data={options(view.sheets)}
        onChange={(event) => {
          const sheet = event.currentTarget.value;
          const isThere = partsOf(sheet).some((part) => part.id === draft.part);
          set({ sheet, part: isThere ? draft.part : (partsOf(sheet)[0]?.id ?? "") });
        }}
      />
      <NativeSelect
        label={words.part}
        value={draft.part}
        data={options(partsOf(draft.sheet))}
        onChange={(event) => set({ part: event.currentTarget.value })}
      />
      {text("type_number", words.type)}
      {text("variant", words.variant)}
      <NativeSelect
        label={words.mark}
        value={draft.mark ?? "spare_1"}
        data={options(view.marks)}
        onChange={(event) => set({ mark: event.currentTarget.value as NonNullable<NewSpare["mark"]> })}
      />
      <NativeSelect
        label={words.origin}
        value={draft.origin ?? "new"}
        data={[
          { value: "new", label: words.origins.new },
          { value: "salvaged", label: words.origins.salvaged },
        ]}
        onChange={(event) => set({ origin: event.currentTarget.value as "new" })}
      />
      {draft.origin === "salvaged" && text("salvaged_from", words.from)}
      {draft.origin === "salvaged" && text("tested", words.tested)}
      {text("place", words.place, words.placeHint)}
      {text("words", words.note)}
      <Problem error={keep.error} />
      <Act type="submit" disabled={keep.isPending}>
        {row ? words.change : words.keep}
      </Act>
    </form>
  );
}

const options = (rows: { id: string; words: string }[]) =>
  rows.map((row) => ({ value: row.id, label: row.words }));

function startOf(view: ShelfView, row: SpareView | undefined): NewSpare {
  if (row) {
    const { readings: _, ...spare } = row.spare;
    return { ...spare, revision: row.revision };
  }
  const sheet = view.sheets[0]?.id ?? "";
  return {
    revision: 0,
    sheet,
    part: view.parts[sheet]?.[0]?.id ?? "",
    type_number: "",
    variant: "",
    origin: "new",
    salvaged_from: "",
    tested: "",
    mark: "spare_1",
    place: "",
    words: "",
    is_scrapped: false,
  };
}
