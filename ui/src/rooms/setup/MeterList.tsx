import type { Meter, Settings } from "../../api/client";
import { useRemoveMeter } from "../../api/meters";
import { useChangeSettings } from "../../api/settings";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { setup as words } from "../../words/setup";

type Props = { settings: Settings; meters: Meter[]; generic: string[]; onEdit: (meter: Meter) => void };

/** Every meter with its place in the bag. */
export function MeterList({ settings, meters, generic, onEdit }: Props) {
  const keep = useChangeSettings();
  const remove = useRemoveMeter();
  const bag = settings.bag ?? [];
  const toggle = (meterId: string) => {
    const next = bag.includes(meterId) ? bag.filter((id) => id !== meterId) : [...bag, meterId];
    keep.mutate({ seen: settings, wanted: { bag: next } });
  };
  const copy = (meter: Meter) =>
    onEdit({ ...meter, id: `own-${crypto.randomUUID().slice(0, 8)}`, title: "" });
  const problem = keep.error ?? remove.error;
  return (
    <Card isStack>
      <h2>{words.meters}</h2>
      <p className="quiet" style={{ margin: 0 }}>
        {words.metersHelp}
      </p>
      {problem && <p className="problem">{problem.message}</p>}
      <ul className="meter-list">
        {meters.map((meter) => (
          <li key={meter.id}>
            <label>
              <input type="checkbox" checked={bag.includes(meter.id)} onChange={() => toggle(meter.id)} />
              <span>
                {meter.title}{" "}
                <span className="quiet">{generic.includes(meter.id) ? words.generic : words.own}</span>
              </span>
            </label>
            {generic.includes(meter.id) ? (
              <Act look="plain" onClick={() => copy(meter)}>
                {words.copy}
              </Act>
            ) : (
              <>
                <Act look="plain" onClick={() => onEdit(meter)}>
                  {words.change}
                </Act>
                <Act look="bare" onClick={() => remove.mutate(meter.id)}>
                  {words.remove}
                </Act>
              </>
            )}
          </li>
        ))}
      </ul>
    </Card>
  );
}
