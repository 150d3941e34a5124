/** The number that was typed, a decimal comma and a true minus sign taken too; NaN for nothing and for what is none. */
export function figure(typed: string): number {
  const plain = typed.trim().replace(",", ".").replace("−", "-");
  return plain === "" ? Number.NaN : Number(plain);
}
