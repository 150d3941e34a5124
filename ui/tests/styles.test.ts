import { expect, test } from "vitest";

const SHARED = "../src/app/controls/controls.css";
/** What makes a control look as it does; where it stands in a room is the room's own matter. */
const LOOK = /^\s*(background|border(-color|-width|-radius|-left)?|color|font-family|min-height)\s*:/m;

type Rule = { file: string; selector: string; body: string };

const sheets = import.meta.glob<string>("../src/**/*.css", { query: "?raw", import: "default", eager: true });
const rules: Rule[] = Object.entries(sheets).flatMap(([file, css]) =>
  [...css.replace(/\/\*.*?\*\//gs, "").matchAll(/([^{}]+)\{([^{}]*)\}/g)].flatMap(
    ([, selectors = "", body = ""]) =>
      selectors.split(",").map((selector) => ({ file, selector: selector.trim(), body })),
  ),
);
const lastClasses = (selector: string) =>
  (selector.split(/[\s>+~]+/).at(-1) ?? "").match(/(?<=\.)[a-z][a-z0-9-]*/g) ?? [];

test("every style sheet was read", () => expect(rules.length).toBeGreaterThan(400));

test("a class has its own rule in one file", () => {
  const homes = new Map<string, Set<string>>();
  for (const { file, selector } of rules) {
    const own = /^\.([a-z][a-z0-9-]*)([:[][^\s]*)?$/.exec(selector)?.[1];
    if (own) homes.set(own, (homes.get(own) ?? new Set()).add(file));
  }
  expect(
    [...homes]
      .filter(([, where]) => where.size > 1)
      .map(([name, where]) => `${name}: ${[...where].join(", ")}`),
  ).toEqual([]);
});

test("a room places a shared control and never gives it another look", () => {
  const shared = new Set(
    rules.filter((rule) => rule.file === SHARED).flatMap((rule) => lastClasses(rule.selector)),
  );
  const relooked = rules.filter(
    ({ file, selector, body }) =>
      file !== SHARED && lastClasses(selector).some((name) => shared.has(name)) && LOOK.test(body),
  );
  expect(relooked.map(({ file, selector }) => `${file}: ${selector}`)).toEqual([]);
});

const pages = import.meta.glob<string>("../src/**/*.tsx", { query: "?raw", import: "default", eager: true });
/** Every class that a file gives to anything: what stands in quotes in a className. */
const given = Object.entries(pages).map(([file, code]) => ({
  file,
  names: new Set(
    [...code.matchAll(/[cC]lassNames?=(?:"([^"]*)"|\{((?:[^{}]|\{[^{}]*\})*)\})/g)].flatMap(
      ([, plain = "", made = ""]) =>
        `${plain} ${made.replace(/[`"${}?:]/g, " ")}`.match(/[a-z][a-z0-9-]*/g) ?? [],
    ),
  ),
}));
const roomOf = (file: string) => /src\/(rooms\/[^/]+|drawings|app)\//.exec(file)?.[1] ?? "";

test("a room's rule reaches nothing outside of its room", () => {
  const reaching = rules.flatMap(({ file, selector }) => {
    const room = roomOf(file);
    if (!room.startsWith("rooms/")) return [];
    const classes = selector.match(/(?<=\.)[a-z][a-z0-9-]*/g) ?? [];
    const elsewhere = given.find(
      (page) => roomOf(page.file) !== room && classes.every((name) => page.names.has(name)),
    );
    return elsewhere ? [`${file}: ${selector} reaches ${elsewhere.file}`] : [];
  });
  expect(reaching).toEqual([]);
});
