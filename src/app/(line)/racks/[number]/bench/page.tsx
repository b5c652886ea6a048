import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { type CureTest, crossCutSpacingMm, judgeCureTest, judgePullOff } from "@/core/bench";
import { usualAcceptance } from "@/core/site";
import { mean } from "@/core/statistics";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { filmSets } from "@/server/rack/film-layers";
import { loadRack } from "@/server/rack/load-rack";
import { placesNoted } from "@/server/rack/places-noted";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CrossCutForm, SolventRubForm } from "@/ui/bench/bench-forms";
import { CureTestForm } from "@/ui/bench/cure-test-form";
import { LookForm } from "@/ui/bench/look-form";
import { PullOffForm } from "@/ui/bench/pull-off-form";
import { ZonesToLook } from "@/ui/bench/zones-to-look";
import { clock, dateAndTime } from "@/ui/format";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { recordSentence } from "@/ui/kinds";
import { Verdict } from "@/ui/marks/verdict";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { cureTestName, cureTestValue, pullOffResult, pullOffSaid, pullOffWord } from "@/ui/words/bench";

export const metadata: Metadata = { title: "Bench tests" };

export default async function BenchPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const film = filmSets(rack)
    .flatMap((r) => r.details.thickness_reading ?? [])
    .filter((r) => !r.rejected_reason)
    .map((r) => r.value_um);
  const spacing = film.length ? crossCutSpacingMm(mean(film), "hard") : null;
  const tests = rack.latest.filter((r) =>
    ["look", "cross-cut", "solvent-rub", "cure-test", "pull-off"].includes(r.base.kind),
  );
  const earlier = (kind: string) =>
    tests
      .filter((r) => r.base.kind === kind)
      .map((r) => ({
        id: r.base.id,
        test: r.details.cure_test?.[0]?.test ?? "",
        label: `${recordSentence(kind, r.details, { units, name: () => "", count: () => 0 })}, ${clock(r.base.happened_at, line.timeZone)}`,
      }));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.part.data.name}
            </>
          }
          title="Look and tests"
        />
        <RackTabs number={rack.number} here="bench" standing={rack.standing} />
        <FocusOnArrival on="#bench form input.input:not([type=file])" />
        {spacing?.ok && spacing.value.method === "x-cut" && (
          <p className="caution mt-4">The film is over 250 µm: use the X-cut, not the lattice.</p>
        )}
        {may(person.role, "inspect") ? (
          <div className="mt-5 grid gap-8">
            <ZonesToLook
              faces={rack.part.data.faces}
              acceptance={rack.acceptance ?? usualAcceptance}
              own={rack.acceptance !== null}
            />
            <LookForm
              rack={rack.number}
              faces={rack.part.data.faces.map(({ id, name }) => ({ id, name }))}
              noted={placesNoted(rack)}
              asked={rack.job.requirement.appearance}
              defects={rack.latest.filter((r) => r.base.kind === "defect").length}
            />
            <CrossCutForm
              rack={rack.number}
              worstIso={rack.job.requirement.adhesionWorstIso}
              spacingMm={spacing?.ok && spacing.value.method === "cross-cut" ? spacing.value.spacingMm : null}
              earlier={earlier("cross-cut")}
            />
            <SolventRubForm
              rack={rack.number}
              knownCuredGrade={rack.powder.data.knownCuredRubGrade}
              earlier={earlier("solvent-rub")}
            />
            <CureTestForm
              rack={rack.number}
              gloss={rack.powder.data.glossGu}
              deltaE={rack.powder.data.swatch?.deltaE ?? null}
              earlier={earlier("cure-test")}
            />
            <PullOffForm
              rack={rack.number}
              askedMPa={rack.job.requirement.tests.find((x) => x.test === "pull-off")?.lower ?? null}
              earlier={earlier("pull-off")}
            />
          </div>
        ) : (
          <p className="mt-5 soft">Tests are recorded by an inspector or a lead.</p>
        )}
      </section>
      <Margin step="test">
        <MarginBlock title="On record">
          {tests.length === 0 && <p className="soft">No test yet on this rack.</p>}
          {tests.map((r) => {
            const cut = r.details.cross_cut?.[0];
            const rub = r.details.solvent_rub?.[0];
            const other = r.details.cure_test?.[0];
            const pull = r.details.pull_off?.[0];
            const look = r.details.look?.[0];
            const pulled =
              pull && pull.asked_mpa !== null
                ? judgePullOff({
                    stressMPa: pull.stress_mpa,
                    requiredMPa: pull.asked_mpa,
                    adhesivePercent: pull.adhesive_percent,
                    cohesivePercent: pull.cohesive_percent,
                    gluePercent: pull.glue_percent,
                  })
                : null;
            const judged = other
              ? judgeCureTest(other.test as CureTest, other.readings as number[], other.asked_lower, other.asked_upper)
              : null;
            return (
              <div key={r.base.id} className="row">
                <span>
                  <b>
                    {look
                      ? `Looked at: ${look.found ? "something found" : "nothing found"}`
                      : cut
                        ? `Cross-cut grade ${cut.iso} (${cut.astm})`
                        : other
                          ? `${cureTestName[other.test as CureTest]} ${cureTestValue(other.test as CureTest, other.value)}`
                          : pull
                            ? `Pull-off ${pullOffSaid(pull)}`
                            : `Rub grade ${rub?.grade} after ${rub?.double_rubs}`}
                  </b>
                  {judged?.ok && judged.value.result !== "unknown" && (
                    <>
                      {" "}
                      <Verdict result={judged.value.result}>{judged.value.result === "in" ? "In" : "Out"}</Verdict>
                    </>
                  )}
                  {pulled?.ok && (
                    <>
                      {" "}
                      <Verdict result={pullOffResult[pulled.value]}>{pullOffWord[pulled.value]}</Verdict>
                    </>
                  )}
                  {(cut?.on_panel ?? rub?.on_panel ?? other?.on_panel ?? pull?.on_panel)
                    ? ", on panel"
                    : ", on the piece"}
                  <br />
                  <span className="faint small">
                    {dateAndTime(r.base.happened_at, line.timeZone)}, {r.by}
                  </span>
                </span>
              </div>
            );
          })}
        </MarginBlock>
        <MarginBlock title="Both scales">
          <p>Grades after ISO 2409 (0 best) and ASTM D3359 B (5B best) come from the same count.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
