import type { ComponentPropsWithoutRef } from "react";
import { classes } from "./classes";

type ChipProps = { isOn?: boolean | "mixed" } & ComponentPropsWithoutRef<"button">;

/** One of several to choose from, on or off; its width stays. */
export function Chip({ isOn, className, ...rest }: ChipProps) {
  return <button type="button" aria-pressed={isOn} {...rest} className={classes("chip", className)} />;
}
