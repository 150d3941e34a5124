import { NativeSelect, Textarea, TextInput } from "@mantine/core";
import { useLocalStorage } from "@mantine/hooks";
import { type FormEvent, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useOpenJob, useSheets } from "../../api/hooks";
import { jobs as words } from "../../words/jobs";

const EMPTY = { machine: "", place: "", sheet: "", complaint: "", serial: "" };

/** A new job on a machine; what is typed outlives a reload. */
export function NewJobForm({ onClose }: { onClose: () => void }) {
  const [draft, setDraft, forget] = useLocalStorage({ key: "ohmcensus.newJob", defaultValue: EMPTY });
  const [problem, setProblem] = useState("");
  const id = useRef(crypto.randomUUID());
  const { data: sheets } = useSheets();
  const open = useOpenJob();
  const navigate = useNavigate();
  const set = (field: keyof typeof EMPTY) => (event: { currentTarget: { value: string } }) => {
    const value = event.currentTarget.value;
    setDraft((before) => ({ ...before, [field]: value }));
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!draft.machine.trim() || !draft.place.trim()) return setProblem(words.missing);
    try {
      const job = await open.mutateAsync({
        ...draft,
        sheet: draft.sheet || (sheets?.[0]?.id ?? ""),
        id: id.current,
      });
      forget();
      void navigate(`/jobs/${job.id}/trace`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form className="card stack new-job" onSubmit={(event) => void submit(event)} noValidate>
      <TextInput
        size="md"
        label={words.machine}
        placeholder={words.machineHint}
        value={draft.machine}
        onChange={set("machine")}
        maxLength={120}
        data-autofocus
        autoFocus
      />
      <TextInput
        size="md"
        label={words.place}
        placeholder={words.placeHint}
        value={draft.place}
        onChange={set("place")}
        maxLength={120}
      />
      <NativeSelect
        size="md"
        label={words.sheet}
        value={draft.sheet}
        onChange={set("sheet")}
        data={(sheets ?? []).map((sheet) => ({
          value: sheet.id,
          label: `${sheet.id} · ${sheet.title} · ${sheet.supply}`,
        }))}
      />
      <Textarea
        size="md"
        label={words.complaint}
        value={draft.complaint}
        onChange={set("complaint")}
        maxLength={2000}
        rows={2}
      />
      <TextInput
        size="md"
        label={words.serial}
        value={draft.serial}
        onChange={set("serial")}
        maxLength={80}
      />
      {problem && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      <div className="row">
        <button type="submit" className="act" disabled={open.isPending}>
          {words.open}
        </button>
        <button type="button" className="plain" onClick={onClose}>
          {words.cancel}
        </button>
      </div>
    </form>
  );
}
