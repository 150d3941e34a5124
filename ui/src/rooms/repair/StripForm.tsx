import { Checkbox, NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useEvent } from "../../api/events";
import type { RepairView } from "../../api/repair";
import { Act } from "../../app/controls/Act";
import { Field } from "../../app/controls/Field";
import { EventProblem } from "../../app/EventProblem";
import { useForm } from "../../app/useForm";
import { strip as words } from "../../words/repair";
import { PlugChips } from "./PlugChips";

const HELD = ["fasteners", "head", "size", "kept"] as const;
const EMPTY = {
  words: "",
  fasteners: "",
  head: "",
  size: "",
  kept: "",
  panel: "",
  plugs: [] as string[],
  /** Null until it is touched: then the cover says what is usual. */
  holdsEarth: null as boolean | null,
};

/** One thing that comes off; what is typed stays until it is stored. */
export function StripForm({ view }: { view: RepairView }) {
  const record = useEvent(view.job.id);
  const [draft, setDraft, forget] = useForm(`ohmcensus.strip.${view.job.id}`, EMPTY);
  const { plugs, holdsEarth, ...typed } = { ...EMPTY, ...draft };
  const isUsual = view.strip.earthed.includes(typed.panel);
  const [problem, setProblem] = useState("");
  const set = (part: Partial<typeof EMPTY>) => setDraft({ ...draft, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const fasteners = typed.fasteners.trim() === "" ? 0 : Number(typed.fasteners);
    if (!Number.isInteger(fasteners)) return setProblem(words.badCount);
    setProblem("");
    try {
      await record.mutateAsync({
        ...typed,
        kind: "strip_step",
        fasteners,
        plugs,
        holds_earth: holdsEarth,
      } as never);
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
      <Checkbox
        label={words.holdsEarth}
        description={words.holdsEarthHelp}
        checked={holdsEarth ?? isUsual}
        onChange={(event) => set({ holdsEarth: event.currentTarget.checked })}
      />
      <details>
        <summary>{words.pulled}</summary>
        <div className="chips">
          <PlugChips plugs={view.strip.plugs} chosen={plugs} onChoose={(chosen) => set({ plugs: chosen })} />
        </div>
      </details>
      <EventProblem event={record} text={problem} />
      <Act type="submit" disabled={record.isPending}>
        {words.keep}
      </Act>
    </form>
  );
}
