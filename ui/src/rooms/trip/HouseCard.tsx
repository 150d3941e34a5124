import { useState } from "react";
import type { HouseView } from "../../api/trip";
import { Act } from "../../app/controls/Act";
import { Card } from "../../app/controls/Card";
import { trip as words } from "../../words/trip";
import { HouseForm } from "./HouseForm";

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** The circuit that feeds the machine: what its device must hold, who uses how much of it, what it cannot see. */
export function HouseCard({ house, jobId }: { house: HouseView; jobId: string }) {
  const [isEdited, setIsEdited] = useState(false);
  return (
    <Card id="circuit" className="trip-house" aria-label={words.house}>
      <h2>{words.house}</h2>
      <p>
        <b>{house.title}</b>, {house.supplies.find((row) => row.id === house.noted.supply)?.words}
      </p>
      <p>{house.budget}</p>
      {house.chance_lo !== null && house.chance_hi !== null && (
        <div className="share wide" role="img" aria-label={percent(house.used)}>
          <span style={{ width: `${100 * house.used}%` }} />
        </div>
      )}
      {house.verdict && (
        <p>
          {house.verdict}{" "}
          {house.chance_lo !== null && house.chance_hi !== null && house.chance_hi > 0 && (
            <b>{words.chance(percent(house.chance_lo), percent(house.chance_hi))}.</b>
          )}
        </p>
      )}
      {house.appliances.length > 0 && (
        <ul className="house-others" aria-label={words.others}>
          {house.appliances.map((row) => (
            <li key={row}>{row}</li>
          ))}
        </ul>
      )}
      <p className="quiet">
        {house.breaker} {house.draws}
      </p>
      <h3>{words.blind}</h3>
      <ul>
        {house.blind_to.map((row) => (
          <li key={row}>{row}</li>
        ))}
      </ul>
      {isEdited ? (
        <HouseForm house={house} jobId={jobId} onKept={() => setIsEdited(false)} />
      ) : (
        <Act look="plain" onClick={() => setIsEdited(true)}>
          {words.edit}
        </Act>
      )}
    </Card>
  );
}
