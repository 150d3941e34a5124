import { IconPhoto } from "@tabler/icons-react";
import type { ChangeEvent } from "react";
import { useKeepMark, useRemoveMark } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Problem } from "../../app/Problem";
import { setup } from "../../words/setup";

const words = setup.firm;

/** The firm's mark: shown as it will stand on paper, another one taken, or none. */
export function MarkPick({ mark }: { mark: string }) {
  const keep = useKeepMark();
  const remove = useRemoveMark();
  const choose = async (change: ChangeEvent<HTMLInputElement>) => {
    const input = change.currentTarget;
    const file = input.files?.[0];
    if (file) await keep.mutateAsync(file).catch(() => undefined);
    input.value = "";
  };
  return (
    <div className="firm-mark">
      {mark && <img src={`/api/firm/mark/${mark}`} alt={words.mark} />}
      <Act as="label" look="plain" className="photo-pick">
        <IconPhoto size={20} aria-hidden />
        {mark ? words.otherMark : words.addMark}
        <input type="file" accept="image/*" onChange={(event) => void choose(event)} />
      </Act>
      {mark && (
        <Act look="plain" disabled={remove.isPending} onClick={() => remove.mutate()}>
          {words.removeMark}
        </Act>
      )}
      <Problem error={keep.error ?? remove.error} />
    </div>
  );
}
