import { useMediaQuery } from "@mantine/hooks";

/** Narrow or low: a phone either way round, a page at twice its size. The style sheets ask the same. */
export const PHONE = "(max-width: 760px), (max-height: 560px)";

export function usePhone(): boolean {
  return useMediaQuery(PHONE, undefined, { getInitialValueInEffect: false }) ?? false;
}
