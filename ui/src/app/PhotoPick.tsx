import { IconCamera } from "@tabler/icons-react";
import { type ChangeEvent, type DragEvent, useState } from "react";
import { useKeepPhoto } from "../api/photos";
import { photo as words } from "../words/frame";
import { Act } from "./controls/Act";
import { Problem } from "./Problem";

type Props = {
  jobId: string;
  of: string;
  /** The step that it shows. */
  event?: string;
  label: string;
};

/** Take or drop photos; each file that cannot be read gets one sentence, the others are kept. */
export function PhotoPick({ jobId, of, event = "", label }: Props) {
  const keep = useKeepPhoto(jobId);
  const [problem, setProblem] = useState("");
  const [left, setLeft] = useState(0);
  const take = async (files: FileList | null) => {
    const chosen = [...(files ?? [])];
    const said: string[] = [];
    for (const [at, file] of chosen.entries()) {
      setLeft(chosen.length - at);
      try {
        await keep.mutateAsync({ role: of, event, file });
      } catch (error) {
        said.push((error as Error).message);
      }
    }
    setLeft(0);
    setProblem(said.length > 1 ? words.several(said[0] ?? "", said.length) : (said[0] ?? ""));
  };
  const choose = async (change: ChangeEvent<HTMLInputElement>) => {
    const input = change.currentTarget;
    await take(input.files);
    input.value = "";
  };
  const drop = (dropped: DragEvent) => {
    dropped.preventDefault();
    void take(dropped.dataTransfer.files);
  };
  return (
    <>
      <Act
        as="label"
        look="plain"
        className="photo-pick"
        onDragOver={(over) => over.preventDefault()}
        onDrop={drop}
      >
        <IconCamera size={20} aria-hidden />
        {left ? words.busy(left) : label}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          onChange={(change) => void choose(change)}
        />
      </Act>
      <Problem text={problem} />
    </>
  );
}
