const PREFIXES: [number, string][] = [
  [1e6, "M"],
  [1e3, "k"],
  [1, ""],
  [1e-3, "m"],
  [1e-6, "µ"],
  [1e-9, "n"],
  [1e-12, "p"],
];

/** A figure as it is typed: 4.7e-9 as 4.7n. What is no number stands as it is. */
export function figure(value: unknown): string {
  if (value === null || value === undefined) return "";
  if (typeof value !== "number") return String(value);
  if (value === 0 || !Number.isFinite(value)) return String(value);
  const size = Math.abs(value);
  if (size >= 0.01 && size < 100_000) return String(Number(value.toPrecision(9)));
  const [scale, prefix] = PREFIXES.find(([least]) => size >= least) ?? [1e-12, "p"];
  return `${Number((value / scale).toPrecision(9))}${prefix}`;
}
