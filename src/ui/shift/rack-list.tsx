import { type RackState, type RailStage, rackStates, railStages } from "@/core/line";
import type { VerdictResult } from "@/core/verdict";
import type { Line } from "@/server/line/load-line";
import type { RackFilter, RackOnLine } from "@/server/line/racks";
import { Choice } from "../fields/choice";
import { countOf, span } from "../format";
import Link from "../link";
import { List } from "../lists/list";
import { Verdict } from "../marks/verdict";
import { nextHref, nextName, nextSoFar, rackStateName, whatIsWrong } from "../words/next";
import { stageNames } from "../words/reasons";
import { Pages } from "./pages";

/** Ages offered as a filter, hours. */
const ages = [
  [4, "longer than 4 h"],
  [24, "longer than a day"],
  [72, "longer than 3 days"],
  [168, "longer than a week"],
] as const;

const columns = [
  { key: "rack", head: "rack", width: "64px", look: "fig text-[17px] font-bold" },
  { key: "part", head: "part", width: "minmax(0,1fr)" },
  { key: "next", head: "next", width: "170px", wide: true },
  { key: "waits", head: "waits", width: "84px", wide: true, look: "fig soft" },
  { key: "state", head: "state", width: "minmax(110px,150px)" },
];

/** Racks on the line: how many there are, filtered by customer, job, state and age, a page at a time. */
export function RackList({
  racks,
  total,
  page,
  perPage,
  filter,
  customers,
  path,
  now,
  empty,
  stageFixed = false,
  line,
}: {
  racks: readonly RackOnLine[];
  total: number;
  page: number;
  perPage: number;
  filter: RackFilter;
  customers: readonly { readonly id: string; readonly name: string }[];
  /** The page it stands on. */
  path: string;
  now: Date;
  empty: string;
  /** The stage is the page's own and not chosen here. */
  stageFixed?: boolean;
  /** What is in the ovens, and how long metal may stand bare: a rack past either does not read as running. */
  line: Pick<Line, "bakes" | "bareLimitHours">;
}) {
  const past = (r: RackOnLine): readonly [VerdictResult, string] | null => {
    const bake = line.bakes.find((b) => b.racks.includes(r.number));
    if (bake?.foretold?.overbakedSince) return ["out", "Over-baked?"];
    if (bake?.overdue) return ["watch", "Pull overdue"];
    const bareMs = r.what === "bare" && r.bareSinceMs !== null ? now.getTime() - r.bareSinceMs : 0;
    return bareMs > line.bareLimitHours * 3_600_000 ? ["out", "Bare too long"] : null;
  };
  const chosen: Record<string, string> = {
    ...(filter.stage && !stageFixed ? { stage: filter.stage } : {}),
    ...(filter.state ? { state: filter.state } : {}),
    ...(filter.customer ? { customer: filter.customer } : {}),
    ...(filter.job ? { job: filter.job } : {}),
    ...(filter.olderThanHours ? { older: String(filter.olderThanHours) } : {}),
  };
  const filtered = Object.keys(chosen).length > 0;
  const select = (name: string, label: string, value: string, options: readonly (readonly [string, string])[]) => (
    <div className="field w-36">
      <label htmlFor={`racks-${name}`}>{label}</label>
      <Choice id={`racks-${name}`} name={name} className="input" defaultValue={value}>
        <option value="">all</option>
        {options.map(([v, text]) => (
          <option key={v} value={v}>
            {text}
          </option>
        ))}
      </Choice>
    </div>
  );
  return (
    <section aria-label="Racks on the line">
      <p className="m-0 mt-3 flex flex-wrap items-baseline gap-x-4">
        <b className="fig text-[17px]">{countOf(total, "rack")}</b>
        <span className="soft">{filtered ? "of those asked for" : "on the line until they are decided"}</span>
      </p>
      {(total > 8 || filtered) && (
        <form className="no-print mt-2 flex flex-wrap items-end gap-3" action={path}>
          {!stageFixed && select("stage", "Stage", filter.stage ?? "", stagesOf())}
          {select("state", "State", filter.state ?? "", statesOf())}
          {customers.length > 1 &&
            select(
              "customer",
              "Customer",
              filter.customer ?? "",
              customers.map((c) => [c.id, c.name] as const),
            )}
          <div className="field w-24">
            <label htmlFor="racks-job">Job</label>
            <input id="racks-job" name="job" className="input" defaultValue={filter.job ?? ""} placeholder="J-408" />
          </div>
          {select(
            "older",
            "Waiting",
            filter.olderThanHours ? String(filter.olderThanHours) : "",
            ages.map(([h, text]) => [String(h), text] as const),
          )}
          <button type="submit" className="btn">
            Show
          </button>
          {filtered && (
            <Link className="link inline-flex min-h-11 items-center" href={path}>
              Show all
            </Link>
          )}
        </form>
      )}
      <div className="ruled mt-3">
        <List
          name="Racks on the line"
          part={total > racks.length}
          empty={filtered ? "No rack fits that. Show all, or another customer, job or state." : empty}
          columns={columns}
          rows={racks.map((r) => {
            const state = past(r)?.[1] ?? rackStateName[r.what];
            return {
              key: r.number,
              href: r.next ? nextHref(r.number, r.next) : `/racks/${r.number}`,
              cells: {
                part: (
                  <>
                    <b>{r.part}</b> <span className="soft">{r.customer}</span>{" "}
                    <span className="faint small whitespace-nowrap">
                      {r.job}
                      {stageFixed ? "" : `, ${stageNames[r.stage]?.toLowerCase()}`}
                    </span>
                  </>
                ),
                next: (
                  <>
                    {r.next ? nextName[r.next] : ""} <span className="fig soft">{nextSoFar(r)}</span>
                  </>
                ),
                waits: span(now.getTime() - r.nextSince.getTime()),
                state: (
                  <>
                    <Verdict result={past(r)?.[0] ?? r.result}>{state}</Verdict>
                    {r.heldBy && <span className="soft small block">{whatIsWrong(r)}</span>}
                  </>
                ),
              },
              values: {
                rack: r.number,
                part: `${r.part}, ${r.customer}, ${r.job}`,
                next: r.next ? (nextName[r.next] ?? "") : "",
                waits: Math.round((now.getTime() - r.nextSince.getTime()) / 60_000),
                state,
              },
            };
          })}
        />
      </div>
      <Pages path={path} page={page} perPage={perPage} total={total} query={chosen} />
    </section>
  );
}
const stagesOf = () =>
  railStages.filter((s): s is RailStage => s !== "plan" && s !== "field").map((s) => [s, stageNames[s] ?? s] as const);
const statesOf = () => rackStates.map((s: RackState) => [s, rackStateName[s]] as const);
