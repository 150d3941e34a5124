import { Modal } from "@mantine/core";
import {
  createContext,
  type ReactNode,
  type RefObject,
  useContext,
  useEffect,
  useRef,
  useState,
} from "react";
import { type NavigateFunction, useNavigate } from "react-router";
import { keysTitle, keys as list } from "../words/frame";
import { STAGES } from "./stages";

/** So long after r the second key of a room counts. */
const ROOM_WITHIN_MS = 1500;
const FIRM: Record<string, string> = { j: "/jobs", m: "/machines", h: "/shelf", s: "/setup" };

/** What a key does; a room says what it has of its own, for the rest there is a usual way. */
export type RoomKeys = Partial<
  Record<"line" | "next" | "undo" | "why" | "live" | "ladder" | "up" | "down" | "enter" | "leave", () => void>
>;
type Act = keyof RoomKeys;

const ACTS: Record<string, Act> = {
  "/": "line",
  n: "next",
  u: "undo",
  w: "why",
  m: "live",
  d: "ladder",
  ArrowUp: "up",
  ArrowDown: "down",
  Enter: "enter",
  Escape: "leave",
};

const Rooms = createContext<RefObject<RefObject<RoomKeys>[]>>({ current: [] });

/** Say what the keys do in a room, as long as it is shown. */
export function useRoomKeys(own: RoomKeys) {
  const rooms = useContext(Rooms);
  const latest = useRef(own);
  latest.current = own;
  useEffect(() => {
    rooms.current.push(latest);
    return () => {
      rooms.current = rooms.current.filter((row) => row !== latest);
    };
  }, [rooms]);
}

/** The same keys in every room; they rest while a field or a dialog has the keyboard. */
export function Keys({ jobId, children }: { jobId: string | null; children: ReactNode }) {
  const rooms = useRef<RefObject<RoomKeys>[]>([]);
  const [isListed, setIsListed] = useState(false);
  const navigate = useNavigate();
  const roomAt = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const isRoom = event.timeStamp - roomAt.current < ROOM_WITHIN_MS;
      roomAt.current = event.key === "r" && !isRoom ? event.timeStamp : Number.NEGATIVE_INFINITY;
      if (isRoom ? goTo(event.key, jobId, navigate) : act(event)) {
        event.preventDefault();
        event.stopImmediatePropagation();
      }
    };
    const act = (event: KeyboardEvent): boolean => {
      if (event.key === "?") {
        setIsListed(true);
        return true;
      }
      const name = ACTS[event.key];
      if (!name || (event.key === "Enter" && isOnControl(event.target))) return false;
      const own = rooms.current.map((room) => room.current[name]).findLast(Boolean);
      if (own) own();
      else return usual(name, jobId, navigate);
      return true;
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [jobId, navigate]);
  return (
    <Rooms.Provider value={rooms}>
      {children}
      <Modal opened={isListed} onClose={() => setIsListed(false)} title={keysTitle} centered>
        <dl className="key-list">
          {list.map(([key, does]) => (
            <div key={key} style={{ display: "contents" }}>
              <dt className="mono">
                <b>{key}</b>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </Modal>
    </Rooms.Provider>
  );
}

/** Go to a room by its second key; tells whether there is one. */
function goTo(key: string, jobId: string | null, navigate: NavigateFunction): boolean {
  const stage = STAGES.find((row) => row.key === key);
  const to = stage && jobId ? `/jobs/${jobId}/${stage.id}` : FIRM[key];
  if (to) void navigate(to);
  return to !== undefined;
}

/** What a key does in a room that has nothing of its own for it; tells whether it does anything. */
function usual(name: Act, jobId: string | null, navigate: NavigateFunction): boolean {
  const room = { why: "trace", ladder: "trace", live: "safe" }[name as string];
  if (room && jobId) {
    void navigate(`/jobs/${jobId}/${room}`, name === "ladder" ? { state: { ladder: true } } : undefined);
    return true;
  }
  if (name === "line")
    return focus(document.querySelector<HTMLElement>("main input[type=text], main textarea"));
  if (name === "next") {
    const act = document.querySelector<HTMLElement>("main .next-bar .act");
    act?.click();
    return act !== null;
  }
  return false;
}

function focus(field: HTMLElement | null): boolean {
  field?.focus();
  return field !== null;
}

function isOnControl(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && target.closest("a, button, summary, [role=button], [tabindex]") !== null
  );
}

export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.closest("input:not([type=checkbox]), textarea, select, [role=dialog]") !== null;
}
