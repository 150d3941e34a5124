import { useEffect } from "react";
import { useLocation } from "react-router";
import { moveUnpressed } from "./unpressed";

/** A room that was reached by a way to one place on it opens there, once the room is there. */
export function usePlace(isThere: boolean) {
  const { hash, key } = useLocation();
  useEffect(() => {
    if (!isThere || !hash || !key) return;
    const id = decodeURIComponent(hash.slice(1));
    moveUnpressed(() => {
      const place = document.getElementById(id);
      place?.scrollIntoView({ block: "start" });
      place?.querySelector<HTMLElement>("button, input, a")?.focus({ preventScroll: true });
    });
  }, [hash, isThere, key]);
}
