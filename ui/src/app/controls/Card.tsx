import type { ComponentPropsWithoutRef, ElementType } from "react";
import { classes } from "./classes";

type CardProps<E extends ElementType> = { as?: E; isStack?: boolean } & ComponentPropsWithoutRef<E>;

/** One matter of a room on its own sheet; stacked, what is in it stands in a column with even gaps. */
export function Card<E extends ElementType = "section">({ as, isStack, className, ...rest }: CardProps<E>) {
  const Tag: ElementType = as ?? "section";
  return <Tag {...rest} className={classes("card", isStack && "stack", className)} />;
}
