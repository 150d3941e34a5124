import type { ComponentPropsWithoutRef, ElementType } from "react";
import { classes } from "./classes";

/** Filled for the one thing to do next, outlined for others beside it, bare within a line, danger for what may hurt. */
const LOOKS = { main: "act", plain: "plain bordered", bare: "plain", danger: "plain danger" };

type ActProps<E extends ElementType> = { as?: E; look?: keyof typeof LOOKS } & ComponentPropsWithoutRef<E>;

/** Something to press: a button, or another element that leads somewhere (`as={Link}`). */
export function Act<E extends ElementType = "button">({
  as,
  look = "main",
  className,
  ...rest
}: ActProps<E>) {
  const Tag: ElementType = as ?? "button";
  const kind = as ? {} : { type: "button" };
  return <Tag {...kind} {...rest} className={classes(LOOKS[look], className)} />;
}
