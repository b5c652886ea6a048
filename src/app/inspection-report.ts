import type { Kysely } from "kysely";
import { within } from "@/core/limits";
import { histogram } from "@/core/statistics";
import { filmAsked, placeLimits, spotMeans } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import type { Database } from "@/db/schema";
import { printedPhotos } from "@/server/photos/printed";
import { channelsOf, judgeRack, spotsOf } from "@/server/rack/judge-rack";
import { customersView, loadRack, type RackFile } from "@/server/rack/load-rack";
import { inspectionReportPdf, type ReportFace } from "@/server/release/inspection-report";
import { siteAt } from "@/server/setup/setup-data";
import type { Person } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { countOf, dateAndTime, figure } from "@/ui/format";
import { recordSentence } from "@/ui/kinds";
import { gradeOnPaper } from "@/ui/words/grades";
import { filmRequired } from "@/ui/words/reasons";
import { faultName, itemName, itemSentence } from "@/ui/words/verdict";
import { sentenceForCustomer } from "@/ui/words/whole";

const testing: ReadonlySet<string> = new Set([
  "look",
  "cross-cut",
  "solvent-rub",
  "cure-test",
  "pull-off",
  "fit-check",
  "touch-up",
  "test-skip",
  "panel-reading",
  "thickness",
]);
/** Photos printed, newest first; how many more there are is said. */
const MOST_PHOTOS = 12;

/** The inspection report of a rack as it stands, for whoever may see the rack; null where there is none for them. */
export async function inspectionReport(
  db: Kysely<Database>,
  person: Person,
  number: string,
  units: UnitSystem,
  at: Date,
): Promise<Buffer | null> {
  const found = await loadRack(db, person, number);
  if (!found) return null;
  const rack = customersView(found);
  const [site, conditions] = await Promise.all([siteAt(db, at), conditionsWhenPassed(db, [rack.id], rack.hungAt)]);
  const verdict = judgeRack(rack, conditions, at);
  const when = (moment: Date) => dateAndTime(moment, site.timeZone);
  const said = (r: RackFile["current"][number]) =>
    recordSentence(r.base.kind, r.details, {
      units,
      name: () => "",
      count: (table) => r.details[table as keyof typeof r.details]?.length ?? 0,
    });
  const captionOf = (p: RackFile["current"][number]) => {
    const of = rack.current.find((r) => r.base.id === p.details.photo?.[0]?.of_record);
    return `${p.details.photo?.[0]?.caption || "Photo"}${of ? ` (${said(of)})` : ""}; ${when(p.base.happened_at)}, ${p.by}`;
  };
  const faults = rack.latest.filter((r) => r.base.kind === "defect" && r.details.defect?.[0]?.pieces_affected !== 0);
  const photos = rack.current.filter((r) => r.base.kind === "photo" && r.base.file_id !== null).reverse();
  return inspectionReportPdf({
    site: site.name,
    number: rack.number,
    facts: [
      ["Customer", rack.customer],
      ["Job", rack.job.number],
      ["Part", `${rack.part.data.name}, ${countOf(rack.pieces.length, "piece")}`],
      ["Powder", `${rack.powder.code} ${rack.powder.data.name}`],
      ["Film asked", filmRequired(rack.job.requirement.film, units)],
      ["Hung", when(rack.hungAt)],
    ],
    sentence: sentenceForCustomer(verdict),
    items: verdict.items.map((i) => ({
      name: itemName(i),
      ...itemSentence(i, units),
      grade: gradeOnPaper(i.grade),
      result: i.result,
    })),
    ...filmOnPaper(rack, units, faults),
    traces: tracesOf(rack, units, when),
    tempUnit: figure(0, "temperature", units).unit,
    faults: faults.map((r, i) => {
      const row = r.details.defect?.[0];
      const face = rack.part.data.faces.find((f) => f.id === row?.face)?.name ?? "not placed";
      const pieces = Array.isArray(row?.pieces) ? `, on ${(row.pieces as string[]).join(", ")}` : "";
      return `${i + 1}  ${faultName(row?.defect ?? "", row?.sub_kind)}, ${face}${row?.size_mm == null ? "" : `, to ${row.size_mm} mm`}${pieces}; ${when(r.base.happened_at)}, ${r.by}`;
    }),
    tests: rack.latest
      .filter((r) => testing.has(r.base.kind))
      .map((r) => ({
        when: when(r.base.happened_at),
        text: said(r),
        by: r.by,
      })),
    photos: await printedPhotos(
      db,
      photos.slice(0, MOST_PHOTOS).map((p) => ({ fileId: p.base.file_id ?? "", caption: captionOf(p) })),
    ),
    morePhotos: Math.max(0, photos.length - MOST_PHOTOS),
    letter: units === "us",
    at: when(at),
  });
}

function filmOnPaper(rack: RackFile, units: UnitSystem, faults: RackFile["latest"]) {
  const { film } = rack.job.requirement;
  const { minUm, maxUm } = filmAsked(film);
  const limits = placeLimits(film);
  const spots = spotsOf(rack);
  const means = spotMeans(spots.map((s) => s.spot));
  const byId = new Map(means.ok ? means.value.means.map((m) => [m.id, m.meanUm]) : []);
  const text = (um: number) => (units === "us" ? figure(um, "thickness", units).text : um.toFixed(0));
  const shown = (um: number) => Number(figure(um, "thickness", units).text);
  const span = maxUm ?? minUm * 2;
  const faces = rack.part.data.faces.map(
    (face): ReportFace => ({
      name: face.name,
      outline: face.outline,
      sizeMm: face.sizeMm ?? null,
      recessFromY: face.recessFromY,
      bare: face.areas.filter((a) => a.kind === "bare"),
      spots: face.spots.map((s) => {
        const um = byId.get(s.id);
        return {
          id: s.id,
          at: s.at,
          text: um === undefined ? "" : text(um),
          lean: um === undefined ? null : ((um - minUm) / (span - minUm || 1)) * 2 - 1,
          result:
            um === undefined
              ? "open"
              : !within(um, limits.lowestUm, limits.highestUm)
                ? "out"
                : within(um, minUm, maxUm)
                  ? "in"
                  : "watch",
        };
      }),
      faults: faults.flatMap((r, i) => {
        const row = r.details.defect?.[0];
        return row?.face === face.id && row.x !== null && row.y !== null
          ? [{ at: [row.x, row.y] as const, number: i + 1 }]
          : [];
      }),
    }),
  );
  const kept = spots.flatMap((s) => s.spot.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm));
  const bins = histogram(kept, 4);
  return {
    faces,
    filmUnit: figure(0, "thickness", units).unit,
    histogram: bins.ok
      ? {
          bars: bins.value
            .filter((b) => b.count > 0)
            .map((b) => ({ from: shown(b.from), to: shown(b.to), count: b.count })),
          limits: [
            { at: shown(minUm), label: `least ${text(minUm)}` },
            ...(maxUm === null ? [] : [{ at: shown(maxUm), label: `most ${text(maxUm)}` }]),
          ],
          alt: `${countOf(kept.length, "reading")} of film by thickness, ${text(Math.min(...kept))} to ${text(Math.max(...kept))} ${figure(0, "thickness", units).unit}`,
        }
      : null,
  };
}

function tracesOf(rack: RackFile, units: UnitSystem, when: (at: Date) => string) {
  const shown = (c: number) => Number(figure(c, "temperature", units).text);
  return rack.latest.flatMap((r) => {
    const row = r.details.bake?.[0];
    const channels = channelsOf(r.details.bake_channel ?? []);
    if (!row || channels.length === 0) return [];
    const lines = channels.map((c) => ({
      name: `${c.name}${c.medium === "air" ? " (air)" : ""}`,
      points: c.trace.timeS.flatMap((t, i) => {
        const temp = c.trace.tempC[i];
        return temp == null ? [] : [[t / 60, shown(temp)] as const];
      }),
    }));
    const least = rack.powder.data.schedule.map((p) => p.metalC);
    return [
      {
        title: `Oven trace, ${row.load_no ? `load ${row.load_no}, ` : ""}${when(row.door_closed_at)}`,
        lines,
        limits:
          least.length > 0
            ? [{ at: shown(Math.min(...least)), label: `coolest of its sheet ${shown(Math.min(...least))}` }]
            : [],
        alt: `Temperature of ${lines.map((l) => `${l.name}, hottest ${Math.max(...l.points.map(([, y]) => y))}`).join("; ")}`,
      },
    ];
  });
}
