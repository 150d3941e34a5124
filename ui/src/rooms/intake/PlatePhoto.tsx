import { IconCamera, IconX } from "@tabler/icons-react";
import { type ChangeEvent, useState } from "react";
import type { Intake } from "../../api/client";
import { useKeepPhoto, useRemovePhoto } from "../../api/rooms";
import { Problem } from "../../app/Problem";
import { plate as words } from "../../words/intake";

/** The photo of the plate; a file that cannot be read gets one sentence. */
export function PlatePhoto({ view }: { view: Intake }) {
  const [problem, setProblem] = useState("");
  const keep = useKeepPhoto(view.job.id);
  const remove = useRemovePhoto(view.job.id);
  const photos = view.photos.filter((photo) => photo.role === "plate");
  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    setProblem("");
    try {
      await keep.mutateAsync({ role: "plate", file });
    } catch (error) {
      setProblem((error as Error).message);
    }
    input.value = "";
  };
  return (
    <div className="plate-photo">
      <h3>{words.photo}</h3>
      <div className="row">
        {photos.map((photo) => (
          <figure key={photo.id}>
            <a href={photo.address} target="_blank" rel="noreferrer">
              <img src={photo.small} alt={words.photoOf(photo.width, photo.height)} />
            </a>
            <button
              type="button"
              className="plain"
              aria-label={words.photoRemove}
              onClick={() => remove.mutate(photo.id)}
            >
              <IconX size={18} aria-hidden />
            </button>
          </figure>
        ))}
        <label className="plain bordered photo-pick">
          <IconCamera size={20} aria-hidden />
          {keep.isPending ? words.photoBusy : words.photoTake}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            onChange={(event) => void choose(event)}
          />
        </label>
      </div>
      <p className="quiet">{words.photoHelp}</p>
      <Problem text={problem} />
    </div>
  );
}
