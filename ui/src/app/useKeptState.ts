import { useState } from "react";

/** A draft that outlives the window until it is stored or forgotten. */
export function useKeptState<T>(key: string, start: T): [T, (next: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => read<T>(key) ?? start);
  const keep = (next: T) => {
    localStorage.setItem(key, JSON.stringify(next));
    setValue(next);
  };
  const forget = () => {
    localStorage.removeItem(key);
    setValue(start);
  };
  return [value, keep, forget];
}

function read<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as T | null;
  } catch {
    return null;
  }
}
