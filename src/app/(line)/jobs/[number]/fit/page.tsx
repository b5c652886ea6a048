import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { notSized } from "@/core/plan";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadPlanFile } from "@/server/plan/load-plan";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, seesCost } from "@/server/sign-in/roles";
import { plainly, sides } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Shape, Verdict } from "@/ui/marks/verdict";
import { FitDrawing } from "@/ui/plan/fit-drawing";
import { JobTabs } from "@/ui/plan/job-tabs";
import { MarksForm } from "@/ui/plan/marks-form";
import { failureText } from "@/ui/words/failures";
import { fitAtSaid, fitSaid, keptOut, markName } from "@/ui/words/plan";
import { placeMarks } from "../../../actions";

export const metadata: Metadata = { title: "Fit and hanging" };

export default async function FitPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const [file, { units }] = await Promise.all([
    loadPlanFile(database(), person, (await params).number, now()),
    preferences(),
  ]);
  if (!file) notFound();
  const { fit, loading, part, hanging, equipment, site } = file;
  const best = fit?.ok ? fit.value.best : null;
  const oven = equipment.find((e) => e.role === "oven")?.inside;
  const rack = equipment.find((e) => e.role === "rack")?.inside;
  const hangs = hanging?.result;
  const said = fit?.ok
    ? fitSaid(best?.clearanceMm ?? null, notSized(equipment), units)
    : { result: "unknown" as const, words: "Never measured", why: null };
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {file.customer} · {file.partName}
              {part ? `, ${sides(part.box, units)}, ${plainly(part.massKg, "mass", units)}` : ""}
            </>
          }
          title={`Job ${file.number}: fit and hanging`}
        >
          <Verdict result={said.result}>{said.words}</Verdict>
          {said.why && <div className="small">{said.why}</div>}
          <div className="small soft">
            {best ? best.orientation.name : `${plainly(site.marginMm, "distance", units)} wanted on each side`}
          </div>
        </PageHead>
        <JobTabs number={file.number} here="fit" cost={seesCost(person)} />
        {!part && <p className="mt-4">{failureText({ kind: "no-measures", part: file.partName })}</p>}
        {fit && !fit.ok && <p className="mt-4 text-out">{failureText(fit.error)}</p>}
        {fit?.ok && (
          <>
            {!best && (
              <p className="mt-4 border-l-4 border-out pl-3">
                In the way that comes nearest it is kept out by{" "}
                {fit.value.keptOutBy.map((a) => `${a.equipment} (${keptOut(a, units)})`).join(", ")}. Turn it, split it,
                or send it elsewhere.
              </p>
            )}
            <div className="mt-4 overflow-x-auto">
              <table className="w-full border-collapse text-[14px]">
                <thead>
                  <tr className="small soft text-left">
                    <th className="py-1 font-normal">turned</th>
                    {fit.value.tried[0]?.at.map((a) => (
                      <th key={a.equipment} className="num font-normal">
                        {a.equipment}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {fit.value.tried.map((t) => (
                    <tr key={t.orientation.name} className="border-t border-rule">
                      <td className="py-1.5">
                        {t === best ? <b className="text-sorrel">{t.orientation.name}</b> : t.orientation.name}
                      </td>
                      {t.at.map((a) => {
                        const place = equipment.find((e) => e.name === a.equipment);
                        const at = place && fitAtSaid(a, place, units);
                        return (
                          <td key={a.equipment} className="num whitespace-nowrap">
                            {at?.words} {at && <Shape result={at.result} />}
                          </td>
                        );
                      })}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </>
        )}
        {best && loading?.ok && oven && rack && (
          <div className="ruled mt-6">
            <h2>
              {loading.value.perRack} on a rack, {loading.value.perMetre.toFixed(1)} a metre of conveyor,{" "}
              {loading.value.perOven} in an oven load
              {loading.value.limitedBy === "mass" ? "; the rack's load stops more" : ""}
            </h2>
            <div className="mt-2">
              <FitDrawing
                oven={oven}
                rack={{ widthMm: rack.lengthMm, heightMm: rack.heightMm }}
                orientation={best.orientation}
                loading={loading.value}
                gapMm={site.gapMm}
                units={units}
              />
            </div>
          </div>
        )}
        {loading && !loading.ok && <p className="mt-4 text-out">{failureText(loading.error)}</p>}
        <div className="ruled mt-6">
          <h2>Where it hangs, what stays bare, where it drains</h2>
          {may(person.role, "release") ? (
            <MarksForm
              part={file.partItem.id}
              version={file.partItem.versionId}
              faces={file.partItem.data.faces.map((f) => ({ ...f, spots: [] }))}
              marks={file.partItem.data.marks}
              save={placeMarks}
            />
          ) : (
            file.partItem.data.marks.map((m) => (
              <p key={`${m.kind}${m.face}${m.at.join()}`} className="m-0">
                <b>{markName[m.kind]}</b> on {m.face}: {m.note || "no note"}
              </p>
            ))
          )}
        </div>
      </section>
      <Margin step="plan">
        <MarginBlock title="How it hangs">
          {!hangs || !hanging ? (
            <p className="soft">Not known: it was never measured.</p>
          ) : hangs.ok ? (
            <>
              <p>
                <Verdict
                  result={hangs.value.hangs === "level" ? "in" : hangs.value.hangs === "tilts" ? "watch" : "out"}
                >
                  {{ level: "Level", tilts: `Tilts ${hangs.value.tiltDeg}°`, tips: "Tips over" }[hangs.value.hangs]}
                </Verdict>{" "}
                on {hanging.points} point{hanging.points > 1 ? "s" : ""}
                {hangs.value.lowEnd && hangs.value.tiltDeg >= 0.5 ? `, ${hangs.value.lowEnd} end lower` : ""}
              </p>
              <p className="soft">
                {hangs.value.shares
                  .filter((s) => s > 0)
                  .map((s) => plainly(s * (part?.massKg ?? 0), "mass", units))
                  .join(" and ")}{" "}
                on them <Grade grade={hanging.centre} />{" "}
                {hanging.centre === "assumed"
                  ? "for a part that is even: place its centre of mass where it is not"
                  : "by the centre of mass placed on the sketch"}
              </p>
            </>
          ) : (
            <p>{failureText(hangs.error)}</p>
          )}
        </MarginBlock>
        {hanging?.draining?.ok && (
          <MarginBlock title="How it drains">
            <p>
              <Verdict
                result={
                  { "runs-out": "in", holds: "out", "no-drain": "out" }[hanging.draining.value.drains] as "in" | "out"
                }
              >
                {
                  {
                    "runs-out": "Runs out",
                    holds: `Holds ${plainly(hanging.draining.value.standingMm, "distance", units)} of liquid`,
                    "no-drain": "No drain is marked",
                  }[hanging.draining.value.drains]
                }
              </Verdict>
            </p>
            <p className="soft">
              {hanging.draining.value.drains === "runs-out"
                ? "as it hangs; its hollow taken as one space."
                : `It is hollow${hanging.draining.value.lowest === "level" ? "" : `, and its ${hanging.draining.value.lowest} end hangs lower`}: set a drain at its lowest place, or tilt it towards the one it has. Wash water that stays weeps out in the oven.`}
            </p>
          </MarginBlock>
        )}
        <MarginBlock title="Touch-up it leaves">
          <p>
            {file.partItem.data.marks.filter((m) => m.kind === "hang" || m.kind === "rest").length} contact points.{" "}
            {file.partItem.data.marks.some((m) => m.kind === "rest")
              ? "It rests on a coated face: a bare mark to agree."
              : ""}
          </p>
        </MarginBlock>
        <MarginBlock title="Earth">
          <p className="small soft">
            Clean metal at each link: lead to rack, rack to hook, hook to part. String and coated bars carry none.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
