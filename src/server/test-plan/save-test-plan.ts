import { type Kysely, sql } from "kysely";
import * as v from "valibot";
import { exposures } from "@/core/plan";
import type { Failure } from "@/core/result";
import { frequencies, MOST_NTH, plannedTests } from "@/core/test-plan";
import type { Database } from "@/db/schema";
import { badEntry, filled, said, whole } from "../input";
import { refuse } from "../outcome";
import { type SetupSaved, saveSetup } from "../setup/save-setup";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Clock } from "../write";

const line = v.pipe(
  v.strictObject({
    test: v.picklist(plannedTests),
    every: v.picklist(frequencies),
    n: v.nullable(whole(2, MOST_NTH)),
    first: v.boolean(),
  }),
  v.forward(
    v.check((l) => (l.every === "nth") === (l.n !== null), "is missing: one rack in how many, 2 or more"),
    ["n"],
  ),
  v.forward(
    v.check(
      (l) => !l.first || ["lot", "shift", "job"].includes(l.every),
      "goes with one of each lot, shift or job: only there is a rest that can wait",
    ),
    ["first"],
  ),
);
const schema = v.object({
  code: v.nullable(filled(20)),
  seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
  reason: said(300, "is too short: name why it changes"),
  data: v.strictObject({
    name: filled(60),
    scope: v.strictObject({
      customer: v.nullable(filled(20)),
      part: v.nullable(filled(40)),
      job: v.nullable(filled(40)),
      exposure: v.array(v.picklist(exposures)),
    }),
    lines: v.pipe(
      v.array(line),
      v.minLength(1, "are none: name one test at least"),
      v.check((all) => new Set(all.map((l) => l.test)).size === all.length, "have one of them twice"),
    ),
    switching: v.strictObject({ backAfter: whole(1, 50), easeAfter: v.nullable(whole(1, 100)) }),
    retired: v.boolean(),
  }),
});

/** A test plan, under the next free number where new. Failures: `bad-entry`, `unknown-set-up`, `number-taken`, and those of saving what is set up. */
export async function saveTestPlan(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(schema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { scope, name } = parsed.output.data;
  return saveSetup(db, person, "test-plan", parsed.output, clock, {
    what: "test plan",
    nextCode: async (trx) => {
      const { rows } = await sql<{ n: number }>`
        select coalesce(max(substr(code, 2)::int), 0)::int as n from setup_entity where kind = 'test-plan' and code ~ '^T[0-9]+$'`.execute(
        trx,
      );
      return `T${(rows[0]?.n ?? 0) + 1}`;
    },
    check: async (trx, all, known, at): Promise<Failure | null> => {
      if (all.some((p) => p.id !== known?.id && p.data.name.toLowerCase() === name.toLowerCase()))
        return { kind: "number-taken", what: "test plan", number: name };
      for (const kind of ["customer", "part"] as const) {
        const code = scope[kind];
        if (code !== null && ![...(await setupAt(trx, kind, at)).values()].some((item) => item.code === code))
          return { kind: "unknown-set-up", what: kind, name: code };
      }
      if (scope.job === null) return null;
      const job = await trx.selectFrom("job").select("id").where("number", "=", scope.job).executeTakeFirst();
      return job ? null : { kind: "unknown-set-up", what: "job", name: scope.job };
    },
  });
}
