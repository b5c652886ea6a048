"use client";
import { exposures } from "@/core/plan";
import {
  type Frequency,
  frequencies,
  type PlannedTest,
  plannedTests,
  type SwitchingRule,
  type TestPlanLine,
  type TestPlanScope,
  usualSwitching,
} from "@/core/test-plan";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { Tick } from "../fields/tick";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { everySaid, plannedTestName } from "../words/test-plan";
import { buttonOf, reasonOf, saidOf, type Version } from "./setup-words";

type Row = {
  readonly key: number;
  readonly test: PlannedTest;
  readonly every: Frequency;
  readonly n: string;
  readonly first: boolean;
};
const waits: ReadonlySet<Frequency> = new Set(["lot", "shift", "job"]);

/** A test plan: whose work, which tests how often, when it tightens and eases. */
export function TestPlanForm({
  known,
  customers,
  parts,
  save,
}: {
  known:
    | (Version & {
        readonly name: string;
        readonly scope: TestPlanScope;
        readonly lines: readonly TestPlanLine[];
        readonly switching: SwitchingRule;
        readonly retired: boolean;
      })
    | null;
  customers: readonly (readonly [string, string])[];
  parts: readonly (readonly [string, string])[];
  save: Save;
}) {
  const rule = known?.switching ?? usualSwitching;
  const held = useEntryForm(`test-plan ${known?.code ?? "new"}`, {
    name: known?.name ?? "",
    customer: known?.scope.customer ?? "",
    part: known?.scope.part ?? "",
    job: known?.scope.job ?? "",
    exposure: [...(known?.scope.exposure ?? [])] as string[],
    backAfter: String(rule.backAfter),
    eases: rule.easeAfter !== null,
    easeAfter: String(rule.easeAfter ?? usualSwitching.easeAfter),
    retired: known?.retired ?? false,
    rows: (known?.lines ?? [{ test: "adhesion", every: "lot", n: null, first: false } as TestPlanLine]).map(
      (l, key) => ({
        ...l,
        key,
        n: l.n === null ? "" : String(l.n),
      }),
    ) as readonly Row[],
    reason: "",
  });
  const [rows, setRows] = held.field("rows");
  const saving = useSave(save, held, { said: saidOf(known) });
  const F = fieldsOf(held);
  const id = `test-plan-${known?.code ?? "new"}`;
  const put = (key: number, over: Partial<Row>) => setRows(rows.map((r) => (r.key === key ? { ...r, ...over } : r)));
  const unused = plannedTests.filter((t) => !rows.some((r) => r.test === t));
  return (
    <Entry
      held={held}
      id={id}
      sending={saving}
      button={buttonOf(known)}
      primary={!known}
      className="grid max-w-[760px] gap-3 pb-3"
      begin={known ? ["reason"] : ["name", "reason"]}
      send={(read) => {
        const { name, customer, part, job, exposure, eases, retired, reason } = held.values;
        const lines = rows.map(({ test, every, n, first }) => {
          if (every === "nth" && !/^\d+$/.test(n.trim()))
            read.refuse("name", `${plannedTestName(test)}: say one rack in how many, a whole number from 2.`);
          return { test, every, n: every === "nth" ? Number(n) : null, first: first && waits.has(every) };
        });
        return saving.send({
          code: known?.code ?? null,
          seen: known?.seen ?? null,
          reason,
          data: {
            name,
            scope: { customer: customer || null, part: part || null, job: job.trim() || null, exposure },
            lines,
            switching: { backAfter: read.number("backAfter"), easeAfter: eases ? read.number("easeAfter") : null },
            retired,
          },
        });
      }}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Words name="name" label="What it is called" most={60} required />
        <F.Pick name="customer" label="For a customer" of={[["", "any"], ...customers]} />
        <F.Pick name="part" label="For a part" of={[["", "any"], ...parts]} />
        <F.Words name="job" label="For one job alone, by its number" most={40} />
      </div>
      <F.Many
        name="exposure"
        label="For work that stands in one of these; none ticked is any"
        of={exposures.map((e): readonly [string, string] => [e, e.replaceAll("-", " ")])}
      />
      <p className="small soft m-0">
        The closest plan goes: one for a job before one for a part, that before one for a customer, that before one for
        a risk. A test it does not name is asked as the job requires it, on every rack.
      </p>
      <fieldset className="m-0 grid gap-2 border-0 p-0">
        <legend className="small p-0">Tests, and how often</legend>
        {rows.map((r) => (
          <div key={r.key} className="flex flex-wrap items-end gap-3">
            <div className="field w-[230px]">
              <label htmlFor={`${id}-test-${r.key}`}>Test</label>
              <Choice
                id={`${id}-test-${r.key}`}
                className="input"
                value={r.test}
                onChange={(test) => put(r.key, { test: test as PlannedTest })}
              >
                {plannedTests
                  .filter((t) => t === r.test || unused.includes(t))
                  .map((t) => (
                    <option key={t} value={t}>
                      {plannedTestName(t)}
                    </option>
                  ))}
              </Choice>
            </div>
            <div className="field w-[190px]">
              <label htmlFor={`${id}-every-${r.key}`}>on</label>
              <Choice
                id={`${id}-every-${r.key}`}
                className="input"
                value={r.every}
                onChange={(every) => put(r.key, { every: every as Frequency })}
              >
                {frequencies.map((f) => (
                  <option key={f} value={f}>
                    {f === "nth" ? "one rack in so many" : everySaid(f, null)}
                  </option>
                ))}
              </Choice>
            </div>
            {r.every === "nth" && (
              <div className="field w-[90px]">
                <label htmlFor={`${id}-n-${r.key}`}>one in</label>
                <input
                  id={`${id}-n-${r.key}`}
                  className="input num"
                  inputMode="numeric"
                  value={r.n}
                  onChange={(e) => put(r.key, { n: e.target.value })}
                />
              </div>
            )}
            {waits.has(r.every) && (
              <label className="flex min-h-11 items-center gap-2">
                <Tick checked={r.first} onChange={(first) => put(r.key, { first })} /> the rest waits for it
              </label>
            )}
            {rows.length > 1 && (
              <button
                type="button"
                className="link min-h-11"
                onClick={() => setRows(rows.filter((x) => x.key !== r.key))}
              >
                take out
              </button>
            )}
          </div>
        ))}
        {unused[0] && (
          <p className="m-0">
            <button
              type="button"
              className="btn"
              onClick={() =>
                setRows([
                  ...rows,
                  {
                    key: Math.max(-1, ...rows.map((r) => r.key)) + 1,
                    test: unused[0] as PlannedTest,
                    every: "lot",
                    n: "",
                    first: false,
                  },
                ])
              }
            >
              One more test
            </button>
          </p>
        )}
      </fieldset>
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="backAfter" label="After a failure every rack, until so many good in a row" className="w-[240px]" />
        <F.Yes name="eases">Half as often after</F.Yes>
        {held.values.eases && <F.Num name="easeAfter" label="good in a row" className="w-[120px]" />}
      </div>
      <p className="small soft m-0">
        Normal, tightened and eased in the manner of ISO 2859-1’s switching; how many good in a row is the shop’s own. A
        first piece that the rest waits for is never eased.
      </p>
      {known && <F.Yes name="retired">No longer used</F.Yes>}
      <F.Words name="reason" label={reasonOf(known)} most={300} required />
    </Entry>
  );
}
