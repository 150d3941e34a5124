import { Menu } from "@mantine/core";
import { IconChevronDown, IconChevronLeft } from "@tabler/icons-react";
import type { ReactNode } from "react";
import { Link, useLocation } from "react-router";
import type { Job } from "../api/client";
import { frame } from "../words/frame";

export type RailRoom = { to: string; words: string; Icon: typeof IconChevronDown; mark?: ReactNode };

type Props = { job: Job | undefined; rooms: RailRoom[]; firm: RailRoom[]; switches: ReactNode };

/** The rail of a phone: which machine, the way back to the jobs, and one list of all rooms. */
export function PhoneBar({ job, rooms, firm, switches }: Props) {
  const { pathname } = useLocation();
  const here = [...rooms, ...firm].find((room) => pathname.startsWith(room.to) && room.to !== "/jobs");
  const isInJob = rooms.some((room) => pathname.startsWith(room.to));
  return (
    <nav className="phone-bar" aria-label={frame.rooms}>
      <Link to="/jobs" className="phone-back">
        {isInJob && <IconChevronLeft size={22} aria-hidden />}
        <span>{isInJob ? <bdi>{job?.machine}</bdi> : frame.name.join("")}</span>
        {isInJob && <span className="hidden">, {frame.toJobs}</span>}
      </Link>
      <Menu position="bottom-end" width={240} offset={2}>
        <Menu.Target>
          <button type="button">
            {here?.words ?? frame.jobs} <IconChevronDown size={18} aria-hidden />
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {rooms.map((room) => (
            <RoomItem key={room.to} room={room} />
          ))}
          {rooms.length > 0 && <Menu.Divider />}
          {firm.map((room) => (
            <RoomItem key={room.to} room={room} />
          ))}
          <Menu.Divider />
          {switches}
        </Menu.Dropdown>
      </Menu>
    </nav>
  );
}

function RoomItem({ room }: { room: RailRoom }) {
  return (
    <Menu.Item component={Link} to={room.to} leftSection={<room.Icon size={20} aria-hidden />}>
      {room.words} {room.mark}
    </Menu.Item>
  );
}
