import { IconDatabaseExclamation } from "@tabler/icons-react";
import { useHealth } from "../api/health";

/** What is wrong with the data or the disk, above every room until it is mended. */
export function HealthBanner() {
  const warnings = useHealth().data?.warnings ?? [];
  if (warnings.length === 0) return null;
  return (
    <div className="health" role="alert">
      <IconDatabaseExclamation size={24} aria-hidden />
      <div>
        {warnings.map((words) => (
          <p key={words}>{words}</p>
        ))}
      </div>
    </div>
  );
}
