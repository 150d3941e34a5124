import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import {
  IconAdjustments,
  IconBox,
  IconCheck,
  IconClipboardList,
  IconLock,
  IconMoon,
  IconSun,
  IconWashMachine,
} from "@tabler/icons-react";
import { NavLink, Outlet, useLocation } from "react-router";
import { frame } from "../words/frame";
import "./frame.css";
import type { Job } from "../api/client";
import { useJob } from "../api/hooks";
import { HealthBanner } from "./HealthBanner";
import { Keys } from "./keys";
import { readLastJob } from "./lastJob";
import { STAGES } from "./stages";

/** The rail with the stages of the job and the rooms of the firm; the room itself beside it. */
export function Frame() {
  const { setColorScheme } = useMantineColorScheme();
  const colorScheme = useComputedColorScheme("light", { getInitialValueInEffect: false });
  const { pathname } = useLocation();
  const jobId = /^\/jobs\/([^/]+)\//.exec(pathname)?.[1] ?? readLastJob();
  const isDark = colorScheme === "dark";
  const job = useJob(jobId ?? "").data;
  return (
    <Keys jobId={jobId}>
      <div className="frame">
        <nav className={job ? "rail with-job" : "rail"} aria-label={frame.rooms}>
          <div className="rail-name">
            <b>{frame.name[0]}</b>
            {frame.name[1]}
          </div>
          {job && (
            <>
              {STAGES.map((stage) => (
                <NavLink key={stage.id} to={`/jobs/${job.id}/${stage.id}`}>
                  <stage.Icon size={20} aria-hidden />
                  <span>{stage.words}</span>
                  <StageMark job={job} stage={stage.id} />
                </NavLink>
              ))}
              <hr />
            </>
          )}
          <NavLink to="/jobs" end className="firm">
            <IconClipboardList size={20} aria-hidden />
            <span>{frame.jobs}</span>
          </NavLink>
          <NavLink to="/machines" className="firm">
            <IconWashMachine size={20} aria-hidden />
            <span>{frame.machines}</span>
          </NavLink>
          <NavLink to="/shelf" className="firm">
            <IconBox size={20} aria-hidden />
            <span>{frame.shelf}</span>
          </NavLink>
          <NavLink to="/setup" className="firm">
            <IconAdjustments size={20} aria-hidden />
            <span>{frame.setup}</span>
          </NavLink>
          <div className="grow" />
          <button
            type="button"
            onClick={() => setColorScheme(isDark ? "light" : "dark")}
            aria-label={frame.themeChange}
          >
            {isDark ? <IconMoon size={20} aria-hidden /> : <IconSun size={20} aria-hidden />}
            <span>{isDark ? frame.theme.dark : frame.theme.light}</span>
          </button>
        </nav>
        <main>
          <HealthBanner />
          <Outlet />
        </main>
      </div>
    </Keys>
  );
}

/** Done or blocked, as a shape; an open stage has none. */
function StageMark({ job, stage }: { job: Job; stage: string }) {
  const found = job.stages.find((row) => row.id === stage);
  if (!found || found.state === "open") return null;
  const Mark = found.state === "done" ? IconCheck : IconLock;
  return (
    <span className="stage-mark" title={found.words}>
      <Mark size={14} stroke={3} aria-hidden />
      <span className="hidden">{frame.stageStates[found.state]}</span>
    </span>
  );
}
