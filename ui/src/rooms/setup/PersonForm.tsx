import { Autocomplete } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { Settings } from "../../api/client";
import { useChangeSettings } from "../../api/hooks";
import { useAddresses } from "../../api/rooms";
import { figure } from "../../app/figure";
import { NumberField } from "../../app/NumberField";
import { setup as words } from "../../words/setup";
import { seenAfter } from "./seenAfter";

/** The technician's name and the temperature around the machine. */
export function PersonForm({ settings }: { settings: Settings }) {
  const [technician, setTechnician] = useState(settings.technician ?? "");
  const [ambient, setAmbient] = useState(String(settings.ambient_celsius ?? 20));
  const [seen, setSeen] = useState(settings);
  const keep = useChangeSettings();
  const known = (useAddresses().data ?? []).filter((row) => row.kind === "technician" && !row.is_archived);
  const names = known.map((row) => row.name);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const celsius = figure(ambient);
    const wanted = { technician, ambient_celsius: ambient.trim() === "" ? Number.NaN : celsius };
    keep.mutate({ seen, wanted }, seenAfter(setSeen));
  };
  return (
    <form className="card stack" onSubmit={submit}>
      <h2>{words.you}</h2>
      <Autocomplete
        size="md"
        label={words.technician}
        value={technician}
        maxLength={80}
        data={names}
        onChange={setTechnician}
      />
      <NumberField
        label={words.ambient}
        description={words.ambientHelp}
        value={ambient}
        onChange={(e) => setAmbient(e.currentTarget.value)}
        error={keep.error?.message}
      />
      <div className="row">
        <button type="submit" className="act" disabled={keep.isPending}>
          {words.keep}
        </button>
        {keep.isSuccess && <span role="status">{words.kept}</span>}
      </div>
    </form>
  );
}
