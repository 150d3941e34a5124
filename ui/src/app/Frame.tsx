import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import {
  IconAdjustments,
  IconClipboardList,
  IconFocusCentered,
  IconMoon,
  IconSun,
} from "@tabler/icons-react";
import { NavLink, Outlet, useLocation } from "react-router";
import { frame } from "../words/frame";
import "./frame.css";
import { readLastJob } from "./lastJob";

/** The rail with the stages of the job and the rooms of the firm; the room itself beside it. */
export function Frame() {
  const { setColorScheme } = useMantineColorScheme();
  const colorScheme = useComputedColorScheme("light", { getInitialValueInEffect: false });
  const { pathname } = useLocation();
  const jobId = /^\/jobs\/([^/]+)\//.exec(pathname)?.[1] ?? readLastJob();
  const isDark = colorScheme === "dark";
  return (
    <div className="frame">
      <nav className="rail" aria-label={frame.rooms}>
        <div className="rail-name">
          <b>{frame.name[0]}</b>
          {frame.name[1]}
        </div>
        {jobId && (
          <>
            <NavLink to={`/jobs/${jobId}/trace`}>
              <IconFocusCentered size={20} aria-hidden />
              {frame.trace}
            </NavLink>
            <hr />
          </>
        )}
        <NavLink to="/jobs" end>
          <IconClipboardList size={20} aria-hidden />
          {frame.jobs}
        </NavLink>
        <NavLink to="/setup">
          <IconAdjustments size={20} aria-hidden />
          {frame.setup}
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
        <Outlet />
      </main>
    </div>
  );
}
