import { IconX } from "@tabler/icons-react";
import type { Intake } from "../../api/client";
import { useRemovePhoto } from "../../api/photos";
import { Act } from "../../app/controls/Act";
import { PhotoPick } from "../../app/PhotoPick";
import { plate as words } from "../../words/intake";

/** The photo of the plate; a file that cannot be read gets one sentence. */
export function PlatePhoto({ view }: { view: Intake }) {
  const remove = useRemovePhoto(view.job.id);
  const photos = view.photos.filter((photo) => photo.role === "plate");
  return (
    <div className="plate-photo">
      <h3>{words.photo}</h3>
      <div className="row">
        {photos.map((photo) => (
          <figure key={photo.id}>
            <a href={photo.address} target="_blank" rel="noreferrer">
              <img src={photo.small} alt={words.photoOf(photo.width, photo.height)} />
            </a>
            <Act
              look="bare"
              className="photo-remove"
              aria-label={words.photoRemove}
              onClick={() => remove.mutate(photo.id)}
            >
              <IconX size={18} aria-hidden />
            </Act>
          </figure>
        ))}
        <PhotoPick jobId={view.job.id} of="plate" label={words.photoTake} />
      </div>
      <p className="quiet">{words.photoHelp}</p>
    </div>
  );
}
