const FILES = import.meta.glob<unknown>("./examples/*.gen.json", { eager: true, import: "default" });

/** An answer of the API about the demo, as `make types` keeps it: what the rooms are drawn from in tests. */
export function example<T>(name: string): T {
  return structuredClone(FILES[`./examples/${name}.gen.json`]) as T;
}

/** Every answer by the ending of its path, to be served. */
export const EVERY_ROOM = Object.fromEntries(
  Object.entries(FILES).map(([file, body]) => [
    `/${file.replace("./examples/", "").replace(".gen.json", "")}`,
    { body },
  ]),
);
