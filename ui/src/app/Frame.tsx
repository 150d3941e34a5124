import { Menu, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import {
  IconAdjustments,
  IconBox,
  IconCheck,
  IconClipboardList,
  IconLock,
  IconMoon,
  IconSun,
  IconVolume,
  IconVolumeOff,
  IconWashMachine,
} from "@tabler/icons-react";
import { NavLink, Outlet, useLocation } from "react-router";
import { frame } from "../words/frame";
import "./frame.css";
import type { Job } from "../api/client";
import { useJob } from "../api/jobs";
import { HealthBanner } from "./HealthBanner";
import { Keypad } from "./Keypad";
import { Keys } from "./keys";
import { readLastJob } from "./lastJob";
import { PhoneBar, type RailRoom } from "./PhoneBar";
import { usePhone } from "./phone";
import { useSound } from "./sound";
import { STAGES } from "./stages";

/** The rail with the stages of the job and the rooms of the firm; the room itself beside it. */
export function Frame() {
  const { setColorScheme } = useMantineColorScheme();
  const colorScheme = useComputedColorScheme("light", { getInitialValueInEffect: false });
  const { pathname } = useLocation();
  const jobId = /^\/jobs\/([^/]+)\//.exec(pathname)?.[1] ?? readLastJob();
  const isDark = colorScheme === "dark";
  const job = useJob(jobId ?? "").data;
  const isPhone = usePhone();
  const rooms: RailRoom[] = job
    ? STAGES.map((stage) => ({
        to: `/jobs/${job.id}/${stage.id}`,
        words: stage.words,
        Icon: stage.Icon,
        mark: <StageMark job={job} stage={stage.id} />,
      }))
    : [];
  const [isLoud, turnSound] = useSound();
  const sound = (
    <>
      {isLoud ? <IconVolume size={20} aria-hidden /> : <IconVolumeOff size={20} aria-hidden />}
      <span>{isLoud ? frame.sound.on : frame.sound.off}</span>
    </>
  );
  const turn = () => setColorScheme(isDark ? "light" : "dark");
  const theme = (
    <>
      {isDark ? <IconMoon size={20} aria-hidden /> : <IconSun size={20} aria-hidden />}
      <span>{isDark ? frame.theme.dark : frame.theme.light}</span>
    </>
  );
  return (
    <Keys jobId={jobId}>
      <div className="frame">
        {isPhone ? (
          <PhoneBar
            job={job}
            rooms={rooms}
            firm={FIRM}
            switches={
              <>
                <Menu.Item onClick={turnSound} aria-label={frame.soundChange(isLoud)}>
                  <span className="row">{sound}</span>
                </Menu.Item>
                <Menu.Item onClick={turn} aria-label={frame.themeChange}>
                  <span className="row">{theme}</span>
                </Menu.Item>
              </>
            }
          />
        ) : (
          <nav className={job ? "rail with-job" : "rail"} aria-label={frame.rooms}>
            <div className="rail-name">
              <b>{frame.name[0]}</b>
              {frame.name[1]}
            </div>
            {rooms.map((room) => (
              <RailLink key={room.to} room={room} />
            ))}
            {job && <hr />}
            {FIRM.map((room) => (
              <RailLink key={room.to} room={room} />
            ))}
            <div className="grow" />
            <button type="button" onClick={turnSound} aria-label={frame.soundChange(isLoud)}>
              {sound}
            </button>
            <button type="button" onClick={turn} aria-label={frame.themeChange}>
              {theme}
            </button>
          </nav>
        )}
        <main>
          <HealthBanner />
          <Outlet />
        </main>
        <Keypad />
      </div>
    </Keys>
  );
}

const FIRM: RailRoom[] = [
  { to: "/jobs", words: frame.jobs, Icon: IconClipboardList },
  { to: "/machines", words: frame.machines, Icon: IconWashMachine },
  { to: "/shelf", words: frame.shelf, Icon: IconBox },
  { to: "/setup", words: frame.setup, Icon: IconAdjustments },
];

function RailLink({ room }: { room: RailRoom }) {
  return (
    <NavLink to={room.to} end={room.to === "/jobs"}>
      <room.Icon size={20} aria-hidden />
      <span>{room.words}</span>
      {room.mark}
    </NavLink>
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
