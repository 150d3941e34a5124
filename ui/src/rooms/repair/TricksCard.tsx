import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { RepairView } from "../../api/repair";
import { Card } from "../../app/controls/Card";
import { tricks as words } from "../../words/repair";

/** What a part needs, how it comes off and goes back well, and what can hurt there. */
export function TricksCard({ view }: { view: RepairView }) {
  const known = view.strip.tricks.filter((row) => row.tricks.length + row.cautions.length > 0);
  const [part, setPart] = useState(
    known.some((row) => row.part === view.plan.part) ? view.plan.part : (known[0]?.part ?? ""),
  );
  const chosen = known.find((row) => row.part === part);
  const named = view.parts.filter((row) => known.some((found) => found.part === row.id));
  if (!chosen) return null;
  return (
    <Card isStack aria-label={words.title}>
      <h2>{words.title}</h2>
      <NativeSelect
        aria-label={words.part}
        value={part}
        data={named.map((row) => ({ value: row.id, label: row.words }))}
        onChange={(event) => setPart(event.currentTarget.value)}
      />
      {chosen.cautions.map((row) => (
        <p key={row} className="notice">
          {row}
        </p>
      ))}
      <ul className="tricks">
        {chosen.tricks.map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
      {chosen.tools.length > 0 && (
        <p className="quiet">
          {words.tools}: {chosen.tools.join(", ")}
        </p>
      )}
    </Card>
  );
}
