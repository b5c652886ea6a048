import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { batchOrConveyor } from "@/core/plan";
import { onHand } from "@/core/powder";
import { powderLots } from "@/server/coat/powder-lots";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { seesCost } from "@/server/sign-in/roles";
import { withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { JobTabs } from "@/ui/plan/job-tabs";
import { failureText } from "@/ui/words/failures";
import { money } from "@/ui/words/plan";

export const metadata: Metadata = { title: "Quantity and cost" };

const lineName: Record<string, string> = {
  powder: "Powder, top coat",
  primer: "Powder, primer",
  strip: "Taking the old coating off",
  blast: "Blasting",
  sand: "Sanding",
  edges: "Edges",
  wash: "Wash line",
  sealer: "Seam sealing",
  outgas: "Outgassing bake",
  spray: "Spraying",
  oven: "Oven",
  handling: "Handling",
  "hand-finish": "Hand finishing and lacquer",
};

export default async function CostPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  // Rates, cost and margin are the shop's own: a customer's person and those on the line do not see them.
  if (!seesCost(person)) notFound();
  const at = now();
  const { units } = await preferences();
  const file = await loadPlanFile(database(), person, (await params).number, at);
  if (!file) notFound();
  const { costing, site, plan, loading } = file;
  const lots = (await powderLots(database(), at)).filter((l) => l.powder?.code === file.powder.code);
  const currency = site.rates?.currency ?? "";
  const value = costing?.ok ? costing.value : null;
  const hand = value && onHand(value.powderKg, lots);
  const against =
    value && loading?.ok && site.rates
      ? batchOrConveyor({
          pieces: plan.pieces ?? 1,
          perOven: loading.value.perOven,
          perMetre: loading.value.perMetre,
          bakeMinutes: value.bakeMinutes,
          conveyorM: site.conveyorOvenM,
          rates: site.rates,
        })
      : null;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {file.customer} · {file.partName}, {plan.pieces ?? "?"} pieces
            </>
          }
          title={`Job ${file.number}: quantity and cost`}
        >
          {value && (
            <>
              <div className="fig text-[26px] font-bold leading-none">{money(value.price, currency)}</div>
              <div className="small soft">{money(value.perPiece, currency)} each, margin in</div>
            </>
          )}
        </PageHead>
        <JobTabs number={file.number} here="cost" cost={seesCost(person)} />
        {!costing && (
          <p className="mt-4">
            {!file.part
              ? failureText({ kind: "no-measures", part: file.partName })
              : !plan.system
                ? "No system is chosen yet: choose it under Risks and system, then it can be reckoned."
                : "No rates or powder price are set up: without them nothing can be reckoned."}
          </p>
        )}
        {costing && !costing.ok && <p className="mt-4 text-out">{failureText(costing.error)}</p>}
        {value && (
          <table className="mt-4 w-full max-w-[720px] border-collapse text-[15px]">
            <thead>
              <tr className="small soft text-left">
                <th className="py-1 font-normal">line</th>
                <th className="num font-normal">quantity</th>
                <th className="num font-normal">hours</th>
                <th className="num font-normal">cost</th>
                <th className="num font-normal">share</th>
              </tr>
            </thead>
            <tbody>
              {value.lines.map((l) => (
                <tr key={l.code} className="border-t border-rule">
                  <td className="py-1.5">{lineName[l.code]}</td>
                  <td className="num">
                    {l.quantity.toFixed(l.unit === "pieces" || l.quantity >= 100 ? 0 : 1)} {l.unit}
                  </td>
                  <td className="num">{l.hours > 0 ? l.hours.toFixed(1) : "–"}</td>
                  <td className="num">{money(l.cost, currency)}</td>
                  <td className="num">{((l.cost / value.cost) * 100).toFixed(0)} %</td>
                </tr>
              ))}
              <tr className="border-t-2 border-ink font-bold">
                <td className="py-1.5">Cost</td>
                <td />
                <td className="num">{value.lines.reduce((a, l) => a + l.hours, 0).toFixed(1)}</td>
                <td className="num">{money(value.cost, currency)}</td>
                <td />
              </tr>
            </tbody>
          </table>
        )}
        {value && (
          <p className="small soft mt-2">
            <Grade grade="assumed" /> by the site's rates, transfer efficiency{" "}
            {((site.rates?.transferEfficiency ?? 0) * 100).toFixed(0)} % and loss{" "}
            {((site.rates?.powderLoss ?? 0) * 100).toFixed(0)} %; a bake of {value.bakeMinutes.toFixed(0)} min by the
            heat-up model, {value.ovenLoads} load
            {value.ovenLoads > 1 ? "s" : ""}.
            {value.edges.ofBox && value.lines.some((l) => l.code === "edges")
              ? ` Edges: nobody measured them; ${value.edges.metres.toFixed(1)} m a piece are those of the box it fits in.`
              : ""}
          </p>
        )}
      </section>
      <Margin step="plan">
        <MarginBlock title={`${file.powder.code} on hand`}>
          {value && hand && (
            <p>
              {hand.kind === "enough" && <Verdict result="in">Enough</Verdict>}
              {hand.kind === "short" && <Verdict result="out">{withUnit(hand.byKg, "mass", units)} short</Verdict>}
              {hand.kind === "not-known" && (
                <>
                  <Verdict result="unknown">Not known</Verdict>, since{" "}
                  {hand.lotsNotWeighed === 1 ? "a lot was" : `${hand.lotsNotWeighed} lots were`} never weighed in
                </>
              )}
              : {withUnit(value.powderKg, "mass", units)} needed, {withUnit(hand.weighedKg, "mass", units)} weighed in
              and in date
            </p>
          )}
          {lots.length === 0 && <p className="soft">No lot of it is in stock.</p>}
          {lots.map((l) => (
            <div key={l.code} className="row grid-cols-[minmax(0,1fr)_auto_auto]">
              <span>{l.code}</span>
              <span className="num">{l.stockKg === null ? "not weighed in" : withUnit(l.stockKg, "mass", units)}</span>
              <span className={`small ${l.daysLeft < 0 ? "text-out" : "soft"}`}>
                {l.daysLeft < 0 ? "expired" : `${Math.floor(l.daysLeft)} days`}
              </span>
            </div>
          ))}
        </MarginBlock>
        <MarginBlock title="Batch or conveyor">
          {against?.ok ? (
            <>
              <p>
                Batch: {against.value.batchHours.toFixed(1)} h,{" "}
                <b className="fig">{money(against.value.batchCost, currency)}</b>
              </p>
              <p>
                Conveyor: {against.value.conveyorHours.toFixed(1)} h at{" "}
                {withUnit(against.value.speedMPerMin, "lineSpeed", units)},{" "}
                <b className="fig">{money(against.value.conveyorCost, currency)}</b>
              </p>
              <p className="soft">
                {against.value.cheaper === "batch"
                  ? "The batch oven is cheaper here."
                  : "The conveyor is cheaper here."}
              </p>
            </>
          ) : (
            <p className="soft">Wants a fit and a cost first.</p>
          )}
        </MarginBlock>
      </Margin>
    </>
  );
}
