import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { strip as words } from "../../words/repair";
import { PlugChips } from "./PlugChips";

const HELD = ["fasteners", "head", "size", "kept"] as const;
const EMPTY = { words: "", fasteners: "", head: "", size: "", kept: "", panel: "", plugs: [] as string[] };

/** One thing that comes off; what is typed stays until it is stored. */
export function StripForm({ view }: { view: RepairView }) {
  const record = useEvent(view.job.id);
  const [draft, setDraft, forget] = useForm(`ohmcensus.strip.${view.job.id}`, EMPTY);
  const { plugs, ...typed } = draft;
  const [problem, setProblem] = useState("");
  const set = (part: Partial<typeof EMPTY>) => setDraft({ ...draft, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const fasteners = typed.fasteners.trim() === "" ? 0 : Number(typed.fasteners);
    if (!Number.isInteger(fasteners)) return setProblem(words.badCount);
    setProblem("");
    try {
      await record.mutateAsync({ ...typed, kind: "strip_step", fasteners, plugs } as never);
      forget();
    } catch {
      // said below
    }
  };
  return (
    <form className="stack" aria-label={words.add} onSubmit={(event) => void submit(event)}>
      <div className="worth-fields">
        <Field
          label={words.off}
          placeholder={words.offHint}
          value={typed.words}
          onChange={(typed) => set({ words: typed })}
        />
        <NativeSelect
          label={words.panel}
          value={typed.panel}
          data={[
            { value: "", label: words.noPanel },
            ...view.strip.panels.map((row) => ({ value: row.id, label: row.words })),
          ]}
          onChange={(event) => set({ panel: event.currentTarget.value })}
        />
        {HELD.map((field) => (
          <Field
            key={field}
            label={words[field]}
            placeholder={words.hints[field]}
            inputMode={field === "fasteners" ? "numeric" : "text"}
            value={typed[field]}
            onChange={(typed) => set({ [field]: typed })}
          />
        ))}
      </div>
      <details>
        <summary>{words.pulled}</summary>
        <div className="chips">
          <PlugChips plugs={view.strip.plugs} chosen={plugs} onChoose={(chosen) => set({ plugs: chosen })} />
        </div>
      </details>
      <Problem error={record.error} text={problem} />
      <Act type="submit" disabled={record.isPending}>
        {words.keep}
      </Act>
    </form>
  );
}
