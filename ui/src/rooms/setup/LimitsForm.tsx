import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { Settings } from "../../api/client";
import { useChangeSettings, useLimits } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { Problem } from "../../app/Problem";
import { setup } from "../../words/setup";

import { type Profile, ProfileForm } from "./ProfileForm";

const words = setup.limits;

/** Which limits a leak is judged by; a built-in profile is changed by making it one's own. */
export function LimitsForm({ settings }: { settings: Settings }) {
  const { data } = useLimits();
  const keep = useChangeSettings();
  const own = settings.own_profiles ?? [];
  const all = [...own, ...(data?.profiles ?? [])];
  const [editing, setEditing] = useState<Profile | null>(null);
  const chosen = all.find((row) => row.id === settings.profile);
  return (
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      <NativeSelect
        label={words.which}
        value={settings.profile ?? ""}
        data={[{ value: "", label: words.usual }, ...all.map((row) => ({ value: row.id, label: row.title }))]}
        onChange={(event) => keep.mutate({ seen: settings, wanted: { profile: event.currentTarget.value } })}
      />
      {chosen?.basis && <p className="quiet">{chosen.basis}</p>}
      {chosen?.replaces_standard && (
        <p>{words.looser((data?.loosened[chosen.id] ?? []).join(", ") || words.nothingLooser)}</p>
      )}
      <Problem error={keep.error} />
      {editing ? (
        <ProfileForm
          key={editing.id}
          start={editing}
          titles={data?.kinds ?? {}}
          onCancel={() => setEditing(null)}
          onKeep={(profile, done) => {
            const others = own.filter((row) => row.id !== profile.id);
            keep.mutate(
              { seen: settings, wanted: { profile: profile.id, own_profiles: [...others, profile] } },
              {
                onSuccess: () => {
                  done();
                  setEditing(null);
                },
              },
            );
          }}
        />
      ) : (
        <Act look="plain" onClick={() => setEditing(copyOf(chosen ?? all[0], own))}>
          {words.change}
        </Act>
      )}
    </Card>
  );
}

function copyOf(profile: Profile | undefined, own: Profile[]): Profile {
  if (profile && own.includes(profile)) return profile;
  return {
    ...profile,
    id: newId(own),
    title: words.own,
    basis: profile ? profile.title : "",
  };
}

/** An id that none of one's own limits has. */
function newId(own: Profile[]): string {
  const taken = own.map((row) => Number(/^own_(\d+)/.exec(row.id)?.[1] ?? 0));
  return `own_${Math.max(0, ...taken) + 1}`;
}
