import { Checkbox, NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useAddresses, useKeepAddress } from "../../api/addresses";
import { type Address, ApiError } from "../../api/client";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Field } from "../../app/controls/Field";
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
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      {error && <p className="problem">{error.message}</p>}
      {KINDS.map((kind) => (
        <div key={kind}>
          <div className="head">
            <h3>{words.kinds[kind]}</h3>
            <Act look="plain" onClick={() => setEditing(fresh(kind))}>
              {words.add[kind]}
            </Act>
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
                  <Act look="bare" onClick={() => setEditing(entry)}>
                    {words.change}
                  </Act>
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
    </Card>
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
      <Field
        label={words.name}
        value={draft.name}
        maxLength={120}
        data-autofocus
        autoFocus
        onChange={(typed) => set({ name: typed })}
      />
      <Field
        label={words.contact}
        value={draft.contact ?? ""}
        maxLength={200}
        onChange={(typed) => set({ contact: typed })}
      />
      {draft.kind === "place" && (
        <NativeSelect
          label={words.customer}
          value={draft.customer_id ?? ""}
          data={[{ value: "", label: "" }, ...customers.map((row) => ({ value: row.id, label: row.name }))]}
          onChange={(event) => set({ customer_id: event.currentTarget.value || null })}
        />
      )}
      <Field
        label={words.note}
        value={draft.note ?? ""}
        maxLength={1000}
        onChange={(typed) => set({ note: typed })}
      />
      <Checkbox
        label={words.archive}
        checked={draft.is_archived ?? false}
        onChange={(event) => set({ is_archived: event.currentTarget.checked })}
      />
      <Problem error={keep.error} />
      <div className="row">
        <Act type="submit" disabled={!draft.name.trim() || keep.isPending}>
          {words.keep}
        </Act>
        <Act look="bare" onClick={onClose}>
          {words.leave}
        </Act>
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
