import { useRef, useState } from "react";

type Change<T> = (next: T | ((before: T) => T)) => void;

/** What is being typed: it outlives the room and the window until it is stored or forgotten. */
export function useForm<T>(key: string, start: T): [T, Change<T>, (next?: T) => void] {
  const [value, setValue] = useState<T>(() => readKept<T>(key) ?? start);
  const latest = useRef(value);
  const hold = (next: T) => {
    latest.current = next;
    setValue(next);
  };
  const change: Change<T> = (next) => {
    hold(typeof next === "function" ? (next as (before: T) => T)(latest.current) : next);
    localStorage.setItem(key, JSON.stringify(latest.current));
  };
  const forget = (next = start) => {
    localStorage.removeItem(key);
    hold(next);
  };
  return [value, change, forget];
}

/** What was kept under a key, null where nothing was or it cannot be read. */
export function readKept<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as T | null;
  } catch {
    return null;
  }
}
