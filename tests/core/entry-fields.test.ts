import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { allKinds } from "@/core/kinds/all";
import { fieldsOf } from "../support/fields-of";

/** What every entry carries, told once. */
const base = /^(kind|id|idempotencyKey|happenedAt|supersedes)\b/;
const taken: Record<string, string[]> = JSON.parse(readFileSync("tests/samples/entry-fields.json", "utf8"));
const entries = allKinds.flatMap((kind) =>
  Object.entries(kind.entries as Record<string, { readonly schema: unknown }>).map(
    ([name, e]) => [name, e.schema] as const,
  ),
);

describe("what each entry takes, field by field: what is beyond is refused, what is within is kept", () => {
  test.each(entries)("%s", (name, schema) => {
    expect(fieldsOf(schema).filter((line) => !base.test(line))).toEqual(taken[name]);
  });
  test("none is told of that there is not", () => {
    expect(Object.keys(taken).sort()).toEqual(entries.map(([name]) => name).sort());
  });
  test("every entry has its own id and key, and when it happened", () => {
    for (const [name, schema] of entries)
      expect(
        fieldsOf(schema).filter((line) => base.test(line)),
        name,
      ).toEqual([
        "kind: literal",
        "id: string",
        "idempotencyKey: string at least 1 at most 120",
        "happenedAt: string",
        "supersedes.recordId: string?",
        "supersedes.reason: string at least 1 at most 400?",
      ]);
  });
});
