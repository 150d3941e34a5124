import { useEvent } from "../../api/events";
import type { SheetOutView } from "../../api/sheetOut";
import { Card } from "../../app/controls/Card";
import { Chip } from "../../app/controls/Chip";
import { EventProblem } from "../../app/EventProblem";
import { sheetOut as words } from "../../words/sheetOut";

const MOST = 6;

/** The photos of the job, each on the sheet or not by one touch. */
export function PhotosCard({ view }: { view: SheetOutView }) {
  const record = useEvent(view.job.id);
  if (view.photos.length === 0) return null;
  const turn = (id: string) => {
    const isOn = view.chosen.includes(id);
    const photos = isOn ? view.chosen.filter((row) => row !== id) : [...view.chosen, id];
    record.mutate({ kind: "photos_chosen", photos });
  };
  return (
    <Card isStack aria-label={words.photos}>
      <h2>{words.photos}</h2>
      {!view.is_signed && <p className="quiet">{words.photosHelp(MOST)}</p>}
      <div className="sheet-photos">
        {view.photos.map((photo, place) => {
          const isOn = view.chosen.includes(photo.id);
          return (
            <figure key={photo.id}>
              <img src={photo.small} alt={words.photo(place + 1, photo.role)} />
              <figcaption>
                <Chip
                  isOn={isOn}
                  aria-label={`${words.onSheet}: ${words.photo(place + 1, photo.role)}`}
                  disabled={view.is_signed || record.isPending || (!isOn && view.chosen.length >= MOST)}
                  onClick={() => turn(photo.id)}
                >
                  {words.onSheet}
                </Chip>
              </figcaption>
            </figure>
          );
        })}
      </div>
      <EventProblem event={record} />
    </Card>
  );
}
