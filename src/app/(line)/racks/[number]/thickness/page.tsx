import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { filmToProfile } from "@/core/preparation";
import { sheetOfRack } from "@/server/coat/sheet-for";
import { coolingOf } from "@/server/cure/cooling";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { filmLayers, filmSets } from "@/server/rack/film-layers";
import { filmReadingsAsked } from "@/server/rack/judge-rack";
import { loadRack, newest } from "@/server/rack/load-rack";
import { placesNoted } from "@/server/rack/places-noted";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { clock, countOf, withUnit } from "@/ui/format";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { BaseMetalForm } from "@/ui/thickness/base-metal-form";
import { FilmPlanForm } from "@/ui/thickness/later";
import { ThicknessStation } from "@/ui/thickness/thickness-station";
import { failureText } from "@/ui/words/failures";
import { filmRequired } from "@/ui/words/reasons";

export const metadata: Metadata = { title: "Film thickness" };

/** From so many pieces on a sample is worth planning. */
const PIECES_TO_SAMPLE = 20;

export default async function ThicknessPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, site, chosen, sheets, instruments] = await Promise.all([
    currentLine(person),
    siteAt(database(), rack.hungAt),
    preferences(),
    setupAt(database(), "setup-sheet", rack.hungAt),
    setupAt(database(), "instrument", rack.hungAt),
  ]);
  const cooling = await coolingOf(database(), rack, line.at);
  const sets = filmSets(rack);
  const layers = filmLayers(rack);
  const stored = sets.map((r) => ({
    recordId: r.base.id,
    label: `${clock(r.base.happened_at, line.timeZone)}, ${r.by}`,
    readings: (r.details.thickness_reading ?? []).map((x) => ({
      face: x.face,
      spot: x.spot,
      valueUm: x.value_um,
      rejectedReason: x.rejected_reason,
      typed: x.typed,
    })),
  }));
  const { film } = rack.job.requirement;
  const plan = newest(rack, "film-plan")?.details.film_plan?.[0];
  const coatRecord = newest(rack, "coat");
  const coat = coatRecord?.details.coat?.[0];
  const bake = newest(rack, "bake");
  const baked = bake !== undefined && coatRecord !== undefined && bake.base.happened_at > coatRecord.base.happened_at;
  const doubted = rack.latest.filter((r) => rack.doubted.has(r.base.id));
  const sheet = sheetOfRack(sheets, rack)?.data;
  const profileUm = rack.latest.findLast((r) => r.details.prep_step?.[0]?.step === "blast")?.details.prep_step?.[0]
    ?.value;
  const read = stored.flatMap((set) => set.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm));
  const cover =
    profileUm != null && read.length > 0
      ? filmToProfile(read.reduce((a, b) => a + b, 0) / read.length, profileUm, site.filmToProfileLeast)
      : null;
  const recess = rack.part.data.faces.flatMap((f) => f.spots.filter((s) => s.note));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.part.data.name}, {countOf(rack.pieces.length, "piece")} · {rack.powder.code}{" "}
              {rack.powder.data.name}
            </>
          }
          title="Film thickness"
        >
          <div className="small soft">{filmRequired(film, chosen.units)}</div>
        </PageHead>
        <RackTabs number={rack.number} here="thickness" standing={rack.standing} />
        <FocusOnArrival on="#entry-line" />
        {cooling?.state === "warm" && (
          <p className="m-0 mt-3 border-watch border-l-4 pl-3">
            The metal is still about <b className="fig">{withUnit(cooling.nowC, "temperature", chosen.units)}</b>
            {cooling.coolAt && <> and cool about {clock(cooling.coolAt, line.timeZone)}</>}: a warm part reads wrong.
            What is read now is read again near room temperature.
          </p>
        )}
        <Fold
          className="mt-2"
          open={sets.length === 0 && !plan && rack.pieces.length >= PIECES_TO_SAMPLE}
          summary={
            <>
              What to read
              {plan
                ? `: ${countOf(plan.spots, "spot")}${plan.sample === null ? "" : `, ${plan.sample} of ${countOf(plan.lot ?? 0, "piece")}`}, places drawn by ${plan.seed}`
                : ", by rule, area and risk"}
            </>
          }
        >
          {plan && (
            <p className="m-0">
              {Array.isArray(plan.pull) && plan.pull.length > 0 && (
                <>
                  Pull <b className="fig">{plan.pull.map((i) => rack.pieces[Number(i) - 1]?.serial ?? i).join(", ")}</b>
                  ; up to {plan.accept_most} may be off.{" "}
                </>
              )}
              {Array.isArray(plan.measured) && plan.measured.length < plan.places && (
                <>
                  Places <b className="fig">{plan.measured.join(", ")}</b> of {plan.places}.
                </>
              )}
            </p>
          )}
          {may(person.role, "inspect") && (
            <FilmPlanForm
              rack={rack.number}
              rule={film.rule}
              areaM2={rack.part.data.measures ? rack.part.data.measures.areaM2 * rack.pieces.length : null}
              pieces={rack.pieces.length}
              serials={rack.pieces.map((p) => p.serial)}
              spotsOnSketch={rack.part.data.faces.reduce((n, f) => n + f.spots.length, 0)}
            />
          )}
        </Fold>
        <ThicknessStation
          rack={rack.number}
          faces={rack.part.data.faces}
          film={film}
          asked={filmReadingsAsked(rack)}
          sets={stored}
          readingsPerSpot={3}
          noted={placesNoted(rack)}
          mayInspect={may(person.role, "inspect")}
          base={rack.base}
          gauges={[...instruments.values()].filter((i) => i.data.kind === "film-gauge").map((i) => i.code)}
          cured={!coat ? "unknown" : baked ? "cured" : "loose"}
          mostUm={rack.powder.data.mostInAllUm}
        />
      </section>
      <Margin step="test">
        <MarginBlock title="How to read">
          <p>
            Type readings, press <span className="key">Enter</span>; each goes to the ringed spot. A gauge that types
            works as it is. <span className="fig">a3 72 75 71</span> after <span className="fig">dft</span> names the
            spot.
          </p>
        </MarginBlock>
        {coat && sheet && (
          <MarginBlock title={recess.length ? `Why ${recess[0]?.id} may be thin` : "Set-up when coated"}>
            <p>
              {recess.length ? `It sits ${recess[0]?.note}, an inside corner. ` : ""}Voltage was{" "}
              <b className="fig">{coat.kv ?? "–"} kV</b> on the set-up sheet's{" "}
              <b className="fig">{sheet.kv.join("–")}</b>
              {recess.length ? `; recess advice is ${sheet.recessKv}` : ""}.
            </p>
          </MarginBlock>
        )}
        {layers && (
          <MarginBlock title="Layer by layer">
            <p>
              Under it <b className="fig">{withUnit(layers.underUm, "thickness", chosen.units)}</b>,{" "}
              {layers.panel === null ? (
                <>read at {countOf(layers.underSpots, "spot")}. </>
              ) : (
                <>
                  on{" "}
                  <Link className="link" href={`/test/panels/${encodeURIComponent(layers.panel)}`}>
                    panel {layers.panel}
                  </Link>
                  , {countOf(layers.underSpots, "reading")} <Grade grade="by-procedure" />.{" "}
                </>
              )}
              {layers.top === null ? (
                <span className="soft">The film in all is not read since the newest coat.</span>
              ) : layers.top.ok ? (
                <>
                  The newest coat alone:{" "}
                  <b className="fig">
                    {withUnit(layers.top.value.topUm, "thickness", chosen.units)} ±{" "}
                    {withUnit(layers.top.value.standardErrorUm, "thickness", chosen.units)}
                  </b>
                  <span className="soft">
                    {layers.top.value.by === "pairs" ? ", spot by spot" : ", by the means"}
                    {layers.top.value.toldApart ? "." : ": under twice its error, so it cannot be told from none."}
                  </span>
                </>
              ) : (
                <span className="text-watch">{failureText(layers.top.error)}</span>
              )}
            </p>
          </MarginBlock>
        )}
        {cover?.ok && profileUm != null && (
          <MarginBlock title="Film over profile">
            <p>
              <Verdict result={cover.value.result}>{cover.value.ratio.toFixed(1)} ×</Verdict> the blast profile of{" "}
              <b className="fig">{withUnit(profileUm, "thickness", chosen.units)}</b>
              <span className="soft">
                ; under {site.filmToProfileLeast} × peaks come near the face, and a reading on blasted steel counts part
                of the profile as film.
              </span>
            </p>
          </MarginBlock>
        )}
        {doubted.length > 0 && (
          <MarginBlock title="Gauge in question">
            <p className="text-watch">
              {doubted.length === 1 ? "A set was" : `${doubted.length} sets were`} read with a gauge that failed its
              shims: read again with one that holds.{" "}
              <Link className="link" href="/test/gauges">
                Its checks
              </Link>
            </p>
          </MarginBlock>
        )}
        {may(person.role, "inspect") && (
          <MarginBlock title="Bare metal">
            <BaseMetalForm rack={rack.number} />
          </MarginBlock>
        )}
        <MarginBlock title="Sets on record">
          {sets.length === 0 && <p className="soft">None yet.</p>}
          {sets.map((r) => (
            <div key={r.base.id} className="row grid-cols-[52px_minmax(0,1fr)_auto]">
              <span className="fig faint">{clock(r.base.happened_at, line.timeZone)}</span>
              <span>
                {r.details.thickness_reading?.length} readings, {r.details.thickness_set?.[0]?.source}
              </span>
              <span className="faint small">{r.by}</span>
            </div>
          ))}
        </MarginBlock>
      </Margin>
    </>
  );
}
