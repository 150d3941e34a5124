import { TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import type { Settings } from "../../api/client";
import { useKeepSettings } from "../../api/hooks";
import { setup as words } from "../../words/setup";

/** The technician's name and the temperature around the machine. */
export function PersonForm({ settings }: { settings: Settings }) {
  const [technician, setTechnician] = useState(settings.technician ?? "");
  const [ambient, setAmbient] = useState(String(settings.ambient_celsius ?? 20));
  const keep = useKeepSettings();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const celsius = Number(ambient.replace(",", ".").replace("−", "-"));
    keep.mutate({ ...settings, technician, ambient_celsius: ambient.trim() === "" ? Number.NaN : celsius });
  };
  return (
    <form className="card stack" onSubmit={submit}>
      <h2>{words.you}</h2>
      <TextInput
        size="md"
        label={words.technician}
        value={technician}
        maxLength={80}
        onChange={(e) => setTechnician(e.currentTarget.value)}
      />
      <TextInput
        size="md"
        label={words.ambient}
        description={words.ambientHelp}
        value={ambient}
        inputMode="decimal"
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
