import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { expect, test } from "vitest";

const src = path.resolve(import.meta.dirname, "../../src");
const files = readdirSync(src, { recursive: true, encoding: "utf8" })
  .filter((f) => /\.tsx?$/.test(f) && /^(server|app|db)\//.test(f) && !f.startsWith("db/migrations/"))
  .map((file) => ({ file, text: readFileSync(path.join(src, file), "utf8") }));
const found = (pattern: RegExp, but: readonly string[]) =>
  files
    .filter(({ file }) => !but.includes(file))
    .flatMap(({ file, text }) => [...text.matchAll(pattern)].map((m) => `${file}: ${m[0]}`));

test("the patterns see what they are for", () => {
  expect("where s.supersedes = r.id").toMatch(conditionOnSupersedes);
  expect('.whereRef("s.supersedes", "=", "record.id")').toMatch(conditionOnSupersedes);
  expect(["$", "{person.customerId}::uuid is null"].join("")).toMatch(ownCustomerFilter);
  expect("person.customerId !== null").toMatch(ownCustomerFilter);
  expect("select pg_advisory_xact_lock(7)").toMatch(ownLock);
});
test("what stands is asked in one place", () => {
  expect(
    found(conditionOnSupersedes, ["db/queries/stands.ts", "server/record/store-record.ts", "db/schema.ts"]),
  ).toEqual([]);
});
test("what a person held to a customer may see is asked in one place", () => {
  // people.ts says who is held to whom; what they see is not asked there.
  const places = ["db/queries/for-person.ts", "server/sign-in/roles.ts", "server/sign-in/person.ts"];
  expect(found(ownCustomerFilter, [...places, "server/shop/people.ts"])).toEqual([]);
});
test("advisory locks have their names in one file", () => {
  expect(found(ownLock, ["db/queries/locks.ts", "db/prepare.ts"])).toEqual([]);
});

const conditionOnSupersedes = /\bsupersedes\s*(=|is |in )(?!\s*\{)[^>]|"[a-z]*\.?supersedes", "/g;
const ownCustomerFilter = /customerId\}?(::uuid)?\s*(is null|=== null|!== null|=== )/g;
const ownLock = /pg_(try_)?advisory/g;
