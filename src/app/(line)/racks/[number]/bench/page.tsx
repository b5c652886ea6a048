import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadKnowledge } from "@/core/diagnosis";
import { usualAcceptance } from "@/core/site";
import { chosenMethod, firstOpen, fitsOf, gaugesOf, panelsOf, testLimits } from "@/server/bench/bench-of";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { loadRack } from "@/server/rack/load-rack";
import { placesNoted } from "@/server/rack/places-noted";
import { benchItems } from "@/server/rack/verdict/bench";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { plannedOf } from "@/server/test-plan/outcomes";
import { CrossCutForm, SolventRubForm, XCutForm } from "@/ui/bench/bench-forms";
import { CureTestForm } from "@/ui/bench/cure-test-form";
import { CutPhotoForm } from "@/ui/bench/cut-photo-form";
import { FitForm } from "@/ui/bench/fit-form";
import { LeaveOutForm } from "@/ui/bench/leave-out-form";
import { LookForm } from "@/ui/bench/look-form";
import { PanelForm } from "@/ui/bench/panel-form";
import { PullOffForm } from "@/ui/bench/pull-off-form";
import { TestsAsked } from "@/ui/bench/tests-asked";
import { TestsOnRecord } from "@/ui/bench/tests-on-record";
import { ZonesToLook } from "@/ui/bench/zones-to-look";
import { Fold } from "@/ui/fields/fold";
import { clock, dateAndTime, withUnit } from "@/ui/format";
import { PhotoForm } from "@/ui/forms/photo-form";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { recordSentence } from "@/ui/kinds";
import Link from "@/ui/link";
import { Photos } from "@/ui/plan/photos";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { itemName, itemSentence } from "@/ui/words/verdict";
import { attachPhoto } from "../../../actions";

export const metadata: Metadata = { title: "Bench tests" };

const formOf = { adhesion: "cut-form", rub: "rub-form", test: "cure-form", appearance: "look-form", fits: "fits-form" };

export default async function BenchPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const chosen = await chosenMethod(database(), rack, line.at);
  const { items } = benchItems(rack);
  const tests = rack.latest.filter((r) =>
    ["look", "cross-cut", "solvent-rub", "cure-test", "pull-off", "fit-check"].includes(r.base.kind),
  );
  const said = (r: (typeof tests)[number]) =>
    `${recordSentence(r.base.kind, r.details, { units, name: () => "", count: () => 0 })}, ${clock(r.base.happened_at, line.timeZone)}`;
  const earlier = (kind: string) =>
    tests
      .filter((r) => r.base.kind === kind)
      .map((r) => ({
        id: r.base.id,
        test: r.details.cure_test?.[0]?.test ?? "",
        label: said(r),
      }));
  const panels = panelsOf(rack);
  const of = { rack: rack.number, panels };
  // A panel that came since is what tests are done on from then on: the forms begin with it.
  const first = panels[0] ?? "none";
  const worstIso = rack.job.requirement.adhesionWorstIso;
  const why = chosen
    ? `for ${withUnit(chosen.byUm, "thickness", units)}${chosen.meanUm === null ? " as the powder’s sheet has it: no film is read yet" : " as read"}, on metal`
    : "";
  const fits = fitsOf(rack);
  const leavable = items.flatMap((i) => (i.plan?.by === "open" || i.plan?.by === "sample-out" ? [plannedOf(i)] : []));
  const photoSaid = (r: (typeof tests)[number]) => {
    const of = rack.current.find((x) => x.base.id === r.details.photo?.[0]?.of_record);
    const caption = r.details.photo?.[0]?.caption ?? "photo";
    return of ? `${caption}: ${said(of)}` : caption;
  };
  const photos = rack.latest.filter((r) => r.base.kind === "photo" && r.base.file_id !== null);
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
        <FocusOnArrival on="#bench form button.btn" />
        <TestsAsked
          tests={items.map((item) => ({
            name: itemName(item),
            word: itemSentence(item, units).word,
            result: item.result,
            form: item.item === "test" && item.test === "pull-off" ? "pull-form" : formOf[item.item],
          }))}
        />
        {may(person.role, "inspect") ? (
          <div className="mt-5 grid gap-8">
            <div id="look-form">
              <LookForm
                rack={rack.number}
                faces={rack.part.data.faces}
                acceptance={rack.acceptance ?? usualAcceptance}
                noted={placesNoted(rack)}
                asked={rack.job.requirement.appearance}
                defects={[...loadKnowledge().defects.values()].map(({ id, label, plain }) => ({ id, label, plain }))}
                pieces={rack.pieces.length}
                baseline={rack.powder.data.smoothness}
              />
              <Fold summary={<>How closely each face is looked at</>} summaryClassName="min-h-11">
                <ZonesToLook
                  faces={rack.part.data.faces}
                  acceptance={rack.acceptance ?? usualAcceptance}
                  own={rack.acceptance !== null}
                />
              </Fold>
            </div>
            <div id="cut-form">
              {chosen?.method.method === "cross-cut" ? (
                <>
                  <CrossCutForm
                    key={first}
                    {...of}
                    lattice={chosen.method}
                    why={why}
                    worstIso={worstIso}
                    earlier={earlier("cross-cut")}
                  />
                  <Fold summary={<>Or read it from a photo</>} summaryClassName="min-h-11">
                    <CutPhotoForm
                      key={first}
                      {...of}
                      lattice={chosen.method}
                      worstIso={worstIso}
                      attach={attachPhoto}
                    />
                  </Fold>
                </>
              ) : (
                <XCutForm key={first} {...of} why={why} worstIso={worstIso} earlier={earlier("cross-cut")} />
              )}
            </div>
            <div id="rub-form">
              <SolventRubForm
                key={first}
                {...of}
                knownCuredGrade={rack.powder.data.knownCuredRubGrade}
                earlier={earlier("solvent-rub")}
              />
            </div>
            <div id="cure-form">
              <CureTestForm
                key={first}
                {...of}
                asked={testLimits(rack)}
                first={firstOpen(items)}
                swatch={rack.powder.data.swatch?.lab ?? null}
                earlier={earlier("cure-test")}
              />
            </div>
            <div id="pull-form">
              <PullOffForm
                key={first}
                {...of}
                askedMPa={rack.job.requirement.tests.find((x) => x.test === "pull-off")?.lower ?? null}
                earlier={earlier("pull-off")}
              />
            </div>
            {(fits.length > 0 || rack.job.requirement.fits) && (
              <div id="fits-form">
                <FitForm rack={rack.number} fits={fits} gauges={gaugesOf(rack)} />
              </div>
            )}
            {may(person.role, "release") && leavable.length > 0 && <LeaveOutForm rack={rack.number} tests={leavable} />}
            <PanelForm rack={rack.number} metal={rack.part.data.substrate} taken={panels} />
            <PhotoForm
              of={{ rack: rack.number }}
              attach={attachPhoto}
              title="A photo: tape, cloth, fault, chip beside the piece"
              shows={[...tests, ...rack.latest.filter((r) => r.base.kind === "defect")].map((r) => ({
                id: r.base.id,
                label: said(r),
              }))}
            />
          </div>
        ) : (
          <p className="mt-5 soft">Tests are recorded by an inspector or a lead.</p>
        )}
        {photos.length > 0 && (
          <Photos
            photos={photos.map((r) => ({
              id: r.base.file_id ?? "",
              caption: photoSaid(r),
              when: dateAndTime(r.base.happened_at, line.timeZone),
            }))}
          />
        )}
      </section>
      <Margin step="test">
        <TestsOnRecord tests={tests} timeZone={line.timeZone} />
        <MarginBlock title="Panels">
          {panels.length === 0 && <p className="soft">None stands for this rack yet.</p>}
          {panels.map((p) => (
            <p key={p} className="m-0">
              <Link className="link" href={`/test/panels/${encodeURIComponent(p)}`}>
                Panel {p}
              </Link>
            </p>
          ))}
        </MarginBlock>
      </Margin>
    </>
  );
}
