import { Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { type Address, ApiError } from "../../api/client";
import { useAddresses, useKeepAddress } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { addresses as words } from "../../words/setup";

const KINDS = ["customer", "place", "technician"] as const;

/** Customers, places and technicians: added, changed, archived; jobs keep their names. */
export function AddressBook() {
  const { data, error } = useAddresses();
  const [editing, setEditing] = useState<Address | null>(null);
  const [showsArchived, setShowsArchived] = useState(false);
  const entries = data ?? [];
  const hasArchived = entries.some((entry) => entry.is_archived);
  return (
    <section className="card stack" aria-label={words.title}>
      <h2>{words.title}</h2>
      {error && <p className="problem">{error.message}</p>}
      {KINDS.map((kind) => (
        <div key={kind}>
          <div className="head">
            <h3>{words.kinds[kind]}</h3>
            <button type="button" className="plain bordered" onClick={() => setEditing(fresh(kind))}>
              {words.add[kind]}
            </button>
          </div>
          <ul className="meter-list">
            {entries
              .filter((entry) => entry.kind === kind && (showsArchived || !entry.is_archived))
              .map((entry) => (
                <li key={entry.id}>
                  <span className="grow">
                    <b>{entry.name}</b>{" "}
                    <span className="quiet">
                      {[entry.contact, owner(entries, entry), entry.is_archived ? words.archived : ""]
                        .filter(Boolean)
                        .join(" · ")}
                    </span>
                  </span>
                  <button type="button" className="plain" onClick={() => setEditing(entry)}>
                    {words.change}
                  </button>
                </li>
              ))}
          </ul>
          {editing?.kind === kind && (
            <AddressForm
              key={editing.id}
              start={editing}
              entries={entries}
              onClose={() => setEditing(null)}
            />
          )}
        </div>
      ))}
      {hasArchived && (
        <Checkbox
          label={words.showArchived}
          checked={showsArchived}
          onChange={(event) => setShowsArchived(event.currentTarget.checked)}
        />
      )}
    </section>
  );
}

type FormProps = { start: Address; entries: Address[]; onClose: () => void };

function AddressForm({ start, entries, onClose }: FormProps) {
  const [draft, setDraft] = useState(start);
  const keep = useKeepAddress();
  const set = (part: Partial<Address>) => setDraft({ ...draft, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await keep.mutateAsync(draft);
      onClose();
    } catch (error) {
      const revision = error instanceof ApiError ? error.problem?.revision : undefined;
      if (revision !== undefined && revision !== null) set({ revision });
    }
  };
  const customers = entries.filter((entry) => entry.kind === "customer" && !entry.is_archived);
  return (
    <form className="stack address-form" onSubmit={(event) => void submit(event)}>
      <TextInput
        size="md"
        label={words.name}
        value={draft.name}
        maxLength={120}
        data-autofocus
        autoFocus
        onChange={(event) => set({ name: event.currentTarget.value })}
      />
      <TextInput
        size="md"
        label={words.contact}
        value={draft.contact ?? ""}
        maxLength={200}
        onChange={(event) => set({ contact: event.currentTarget.value })}
      />
      {draft.kind === "place" && (
        <NativeSelect
          size="md"
          label={words.customer}
          value={draft.customer_id ?? ""}
          data={[{ value: "", label: "" }, ...customers.map((row) => ({ value: row.id, label: row.name }))]}
          onChange={(event) => set({ customer_id: event.currentTarget.value || null })}
        />
      )}
      <TextInput
        size="md"
        label={words.note}
        value={draft.note ?? ""}
        maxLength={1000}
        onChange={(event) => set({ note: event.currentTarget.value })}
      />
      <Checkbox
        label={words.archive}
        checked={draft.is_archived ?? false}
        onChange={(event) => set({ is_archived: event.currentTarget.checked })}
      />
      <Problem error={keep.error} />
      <div className="row">
        <button type="submit" className="act" disabled={!draft.name.trim() || keep.isPending}>
          {words.keep}
        </button>
        <button type="button" className="plain" onClick={onClose}>
          {words.leave}
        </button>
      </div>
    </form>
  );
}

function fresh(kind: Address["kind"]): Address {
  return {
    id: crypto.randomUUID(),
    kind,
    name: "",
    contact: "",
    note: "",
    customer_id: null,
    is_archived: false,
  };
}

function owner(entries: Address[], entry: Address): string {
  return entries.find((row) => row.id === entry.customer_id)?.name ?? "";
}
