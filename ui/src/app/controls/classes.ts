/** Class names of an element, those that are empty left out. */
export function classes(...names: (string | false | undefined)[]): string {
  return names.filter(Boolean).join(" ");
}
