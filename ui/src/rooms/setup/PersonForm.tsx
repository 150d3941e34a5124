import { Autocomplete } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useAddresses } from "../../api/addresses";
import type { Settings } from "../../api/client";
import { useChangeSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { NumberField } from "../../app/controls/Field";
import { figure } from "../../app/figure";
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
    <Card as="form" isStack onSubmit={submit}>
      <h2>{words.you}</h2>
      <Autocomplete
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
        onChange={(typed) => setAmbient(typed)}
        error={keep.error?.message}
      />
      <div className="row">
        <Act type="submit" disabled={keep.isPending}>
          {words.keep}
        </Act>
        {keep.isSuccess && <span role="status">{words.kept}</span>}
      </div>
    </Card>
  );
}
