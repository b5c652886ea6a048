import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, test } from "vitest";

/** Everything that answers from outside asks who it is before it does anything: read from the source, so that none is forgotten. */
const below = (directory: string, name: RegExp): string[] =>
  readdirSync(directory, { recursive: true, encoding: "utf8" })
    .filter((file) => name.test(path.basename(file)))
    .map((file) => path.join(directory, file));

/** An action of the one shape asks by itself, before it hands out the database: what is left to see is that it names who may. */
const ACTION =
  /^export const (\w+) = action\(\s*("(?:look|log-line|inspect|release|administer)"|\(form: FormData\)|photoAbility)/gm;
const ASKS = /\bpersonWith\(|\bpersonOnPage\(|\bpersonNow\(/;
/** The whole text of an exported function, to its closing brace at the start of a line. */
function bodies(text: string): { name: string; body: string }[] {
  return [...text.matchAll(/^export async function (\w+)\([\s\S]*?^}$/gm)].map((m) => ({
    name: m[1] as string,
    body: m[0],
  }));
}

describe("server actions", () => {
  /** Who signs in is nobody yet, by password or by code; who signs out needs no leave; who begins a shop is its first; who holds a certificate checks it. */
  const open = new Set(["signIn", "signInByCode", "signOut", "begin", "checkPaperFile"]);
  const files = below("src/app", /^actions\.ts$/).map((file) => ({ file, text: readFileSync(file, "utf8") }));
  const actions = files.flatMap(({ file, text }) => bodies(text).map((a) => ({ ...a, file })));
  const shaped = files.flatMap(({ text }) => [...text.matchAll(ACTION)].map((m) => m[1] as string));
  test("those that ask nobody are refused by something else: tries are counted, and a shop begins once", () => {
    const guards = {
      signIn: ["src/app/sign-in/actions.ts", "tooManyAttempts("],
      signInByCode: ["src/server/shop/people.ts", "tooManyAttempts("],
      begin: ["src/server/shop/begin-shop.ts", "shopIsEmpty(trx)"],
      // Tells one of three words of the hash of a file, and reads nothing large.
      checkPaperFile: ["src/app/check/actions.ts", "file.size > MOST_BYTES"],
    };
    for (const [file, guard] of Object.values(guards)) expect(readFileSync(file as string, "utf8")).toContain(guard);
  });
  test("are all found", () => {
    expect(shaped.length).toBeGreaterThan(25);
    for (const name of ["decide", "keepOven", "keepCurePlan", "save", "pull", "importUpload"])
      expect(shaped).toContain(name);
    // Nothing is exported in a third way.
    for (const { text } of files)
      for (const [, name] of text.matchAll(/^export (?:async function|const|let|function) (\w+)/gm))
        expect([...shaped, ...actions.map((a) => a.name)]).toContain(name);
    for (const file of below("src/app", /\.tsx?$/))
      if (/^"use server"/.test(readFileSync(file, "utf8"))) expect(path.basename(file)).toBe("actions.ts");
  });
  test.each(actions.map((a) => [a.name, a] as const))("%s asks who it is before the database", (name, { body }) => {
    if (open.has(name)) return;
    const asked = body.search(ASKS);
    expect(asked, "asks").toBeGreaterThan(-1);
    const reached = body.search(/\bdatabase\(/);
    if (reached > -1) expect(asked, "before the database").toBeLessThan(reached);
  });
});

test("an action of the one shape asks who it is before it hands out the database", () => {
  const text = readFileSync("src/server/action.ts", "utf8");
  expect(text.search(ASKS)).toBeGreaterThan(-1);
  expect(text.search(ASKS)).toBeLessThan(text.search(/\bdatabase\(/));
});

test("what a device sends is asked whose it is before the database is handed out", () => {
  const text = readFileSync("src/app/api/field/from-device.ts", "utf8");
  expect(text.search(ASKS)).toBeGreaterThan(-1);
  expect(text.search(ASKS)).toBeLessThan(text.search(/\bdatabase\(/));
});

describe("routes", () => {
  /** Says only that the application runs. */
  const open = new Set(["src/app/api/health/route.ts"]);
  const routes = below("src/app/api", /^route\.ts$/);
  test("are all found, and each answers a method", () => {
    expect(routes.length).toBeGreaterThan(8);
    for (const file of routes)
      expect(readFileSync(file, "utf8"), file).toMatch(/export (async function|const) (GET|POST)/);
  });
  test.each(routes)("%s asks who it is before the database", (file) => {
    if (open.has(file)) return;
    const text = readFileSync(file, "utf8");
    const handler = text.slice(text.search(/export (async function|const) (GET|POST)/));
    // Of the one shape for what devices send, which asks by itself.
    if (/=>\s*fromDevice\(/.test(handler)) return expect(handler).not.toMatch(/\bdatabase\(/);
    const asked = handler.search(ASKS);
    expect(asked).toBeGreaterThan(-1);
    const reached = handler.search(/\bdatabase\(/);
    if (reached > -1) expect(asked).toBeLessThan(reached);
  });
});

test("every page of the line asks who it is", () => {
  const pages = below("src/app/(line)", /^(page|layout)\.tsx$/);
  expect(pages.length).toBeGreaterThan(40);
  const silent = pages.filter((file) => !ASKS.test(readFileSync(file, "utf8")));
  expect(silent).toEqual([]);
});

test("nothing is spliced into SQL: a raw statement holds no value of a person's", () => {
  const raw = below("src", /\.tsx?$/).flatMap((file) =>
    [...readFileSync(file, "utf8").matchAll(/sql\s*\.raw\(\s*(`[^`]*`)?/g)]
      .filter((m) => (m[1] ?? "").includes("${"))
      .map((m) => ({ file, text: m[1] as string })),
  );
  // What is put together are names of the code's own: constants, roles and tables, never what was typed.
  const own = /\$\{([A-Z][A-Z_]+|stands|[a-zA-Z]*[cC]olumns?|[a-zA-Z]*[tT]ables?|t|table|name|column|alias)\}/;
  for (const { file, text } of raw)
    for (const [part] of text.matchAll(/\$\{[^}]*\}/g)) expect(own.test(part), `${file}: ${part}`).toBe(true);
});
