import { type CureTest, judgeCureTest, judgePullOff } from "@/core/bench";
import type { ThreadRecord } from "@/server/rack/load-rack";
import { dateAndTime } from "../format";
import { MarginBlock } from "../frame/margin";
import { Verdict } from "../marks/verdict";
import { cureTestName, cureTestValue, pullOffResult, pullOffSaid, pullOffWord } from "../words/bench";

/** The tests and looks of a rack in the margin, each with what it came to, on what, when and by whom. */
export function TestsOnRecord({ tests, timeZone }: { tests: readonly ThreadRecord[]; timeZone: string }) {
  return (
    <MarginBlock title="On record">
      {tests.length === 0 && <p className="soft">No test yet on this rack.</p>}
      {tests.map((r) => (
        <div key={r.base.id} className="row">
          <span>
            <Said record={r} />
            <br />
            <span className="faint small">
              {dateAndTime(r.base.happened_at, timeZone)}, {r.by}
            </span>
          </span>
        </div>
      ))}
    </MarginBlock>
  );
}

const onWhat = (row: { readonly on_panel: boolean; readonly panel_no: string | null }): string =>
  row.panel_no ? `, panel ${row.panel_no}` : row.on_panel ? ", on panel" : ", on the piece";

function Said({ record: { details } }: { record: ThreadRecord }) {
  const { look, cross_cut, solvent_rub, cure_test, pull_off, fit_try } = details;
  if (look?.[0]) return <b>Looked at: {look[0].found ? "something found" : "nothing found"}</b>;
  if (cross_cut?.[0]) {
    const [cut] = cross_cut;
    return (
      <>
        <b>{cut.method === "x-cut" ? `X-cut ${cut.astm}` : `Cross-cut grade ${cut.iso} (${cut.astm})`}</b>
        {onWhat(cut)}
      </>
    );
  }
  if (cure_test?.[0]) {
    const [row] = cure_test;
    const test = row.test as CureTest;
    const judged = judgeCureTest(test, row.readings as number[], row.asked_lower, row.asked_upper);
    return (
      <>
        <b>
          {cureTestName[test]} {cureTestValue(test, row.value)}
        </b>
        {judged.ok && judged.value.result !== "unknown" && (
          <>
            {" "}
            <Verdict result={judged.value.result}>{judged.value.result === "in" ? "In" : "Out"}</Verdict>
          </>
        )}
        {onWhat(row)}
      </>
    );
  }
  if (pull_off?.[0]) {
    const [row] = pull_off;
    const judged =
      row.asked_mpa === null
        ? null
        : judgePullOff({
            stressMPa: row.stress_mpa,
            requiredMPa: row.asked_mpa,
            adhesivePercent: row.adhesive_percent,
            cohesivePercent: row.cohesive_percent,
            gluePercent: row.glue_percent,
          });
    return (
      <>
        <b>Pull-off {pullOffSaid(row)}</b>
        {judged?.ok && (
          <>
            {" "}
            <Verdict result={pullOffResult[judged.value]}>{pullOffWord[judged.value]}</Verdict>
          </>
        )}
        {onWhat(row)}
      </>
    );
  }
  if (fit_try?.length)
    return <b>Fits: {fit_try.map((t) => `${t.fit} ${t.goes ? "goes" : "does not go"}`).join(", ")}</b>;
  const [row] = solvent_rub ?? [];
  return (
    <>
      <b>
        Rub grade {row?.grade} after {row?.double_rubs}
      </b>
      {row && onWhat(row)}
    </>
  );
}
