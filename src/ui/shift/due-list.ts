import { bathSlug } from "@/core/bath";
import { ovenSlug } from "@/core/cure";
import { type RailStage, railStages } from "@/core/line";
import type { UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import type { StructureLine } from "@/server/field/structure-facts";
import type { Line, RackOnLine } from "@/server/line/load-line";
import { clock, countOf, span } from "../format";
import { bathValue, parameterName } from "../words/baths";
import { staleBakeSaid } from "../words/cure";
import { visitDueName } from "../words/field-zones";
import { nextHref, nextName, rackStateName, whatIsWrong } from "../words/next";
import { verificationSaid } from "../words/people";
import { passageName } from "../words/preparation";
import { stageNames } from "../words/reasons";
import { plannedTestName } from "../words/test-plan";
import { upkeepWord } from "../words/upkeep";
import { keyName, resultName } from "../words/verdict";

export type DueItem = {
  readonly atMs: number | null;
  readonly what: string;
  readonly why: string;
  readonly result: VerdictResult;
  readonly word: string;
  readonly href: string;
  /** The stage it is due at. */
  readonly stage?: RailStage;
  /** What waiting costs: minutes of metal in the heat, hours of a bath that runs unlooked at or of metal past its limit. */
  readonly pressing?: "minutes" | "hours";
};

const severity: Record<VerdictResult, number> = { out: 0, watch: 1, unknown: 2, in: 3 };
/** So long before it is due a pull stands at the top. */
const READY_MS = 30 * 60_000;
/** What is due comes before what is still to come; of what is due, pulls, then what runs out unlooked at, then what is out before what only waits. */
function byUrgency(now: number) {
  const time = (item: DueItem) => item.atMs ?? Number.POSITIVE_INFINITY;
  const weight = (item: DueItem) => (item.pressing === "minutes" ? 2 : item.pressing === "hours" ? 1 : 0);
  return (a: DueItem, b: DueItem): number => {
    // A pull that is near is got ready for: it stands with what is due.
    const due = (item: DueItem) => time(item) <= now + (item.pressing === "minutes" ? READY_MS : 0);
    const [dueA, dueB] = [due(a), due(b)];
    if (dueA !== dueB) return dueA ? -1 : 1;
    if (!dueA) return time(a) - time(b);
    if (a.pressing === "minutes" && b.pressing === "minutes") return time(a) - time(b);
    return weight(b) - weight(a) || severity[a.result] - severity[b.result] || time(a) - time(b);
  };
}

const testNames = (tests: readonly string[]): string => tests.map((t) => plannedTestName(t).toLowerCase()).join(", ");
/** What is still to be tested: as its test plan has it, else the cut and the rub that every rack has. */
const testsToCome = ({ testsDue, sampleDue, iso }: RackOnLine): string =>
  testsDue.length + sampleDue.length > 0
    ? [
        ...(testsDue.length > 0 ? [`its test plan asks for ${testNames(testsDue)}`] : []),
        ...(sampleDue.length > 0 ? [`waits for the sample of its run: ${testNames(sampleDue)}`] : []),
      ].join("; ")
    : `${iso === null ? "cross-cut and rub are" : "the rub is"} to come`;

const DAY_MS = 86_400_000;
/** A visit is said so long before it is due, and so many are named. */
const VISIT_SAID_MS = 30 * DAY_MS;
const VISITS_NAMED = 4;
/** An unsealed coat is said when a quarter of its time is left. */
const SAID_BEFORE = 0.25;

/** What needs a hand now, the most urgent first: pulls, bath checks, bare metal, open readings, held racks, cases. */
export function dueList(line: Line, units: UnitSystem, visits: readonly StructureLine[] = []): DueItem[] {
  const items: DueItem[] = [];
  const now = line.at.getTime();
  const time = (at: Date) => clock(at, line.timeZone);
  const ago = (rack: RackOnLine) => `${span(now - rack.nextSince.getTime())} ago`;
  for (const bake of line.bakes) {
    if (bake.index === null) {
      items.push({
        atMs: bake.closedAt.getTime(),
        what: `${bake.oven}, load ${bake.load}`,
        why: `In since ${time(bake.closedAt)}; no metal temperature on record yet, so its cure is not known`,
        result: "unknown",
        word: `${span(now - bake.closedAt.getTime())} in`,
        href: `/cure/loads/${ovenSlug(bake.oven)}/${encodeURIComponent(bake.load)}`,
        stage: "cure",
        pressing: "minutes",
      });
      continue;
    }
    const ready = bake.cured;
    const late = bake.overdue && bake.pullAt !== null;
    const spoilt = bake.foretold?.overbakedSince ?? null;
    const overdue = bake.pullAt ? span(now - bake.pullAt.getTime()) : "";
    items.push({
      atMs: bake.pullAt?.getTime() ?? null,
      what: `${bake.oven}, load ${bake.load}`,
      why: bake.stale
        ? `${staleBakeSaid(bake, now, time)}`
        : ready
          ? `${bake.channel} has index ${bake.index.toFixed(0)}: cured, pull before it over-bakes`
          : bake.pullAt
            ? `${bake.channel}, the slowest, is at index ${bake.index.toFixed(0)}; cured by ${time(bake.pullAt)} as its trace foretells`
            : `${bake.channel} is still heating; index ${bake.index.toFixed(0)}`,
      result: late && bake.result !== "out" ? "watch" : bake.result,
      word: spoilt
        ? "Over-baked?"
        : late
          ? `Pull overdue ${overdue}`
          : ready
            ? "Pull now"
            : bake.pullAt
              ? `Pull ${time(bake.pullAt)}`
              : "Heating",
      href: `/racks/${bake.racks[0]}/cure`,
      stage: "cure",
      pressing: "minutes",
    });
  }
  for (const { rack, since, changed } of line.lookAgain)
    items.push({
      atMs: since.getTime(),
      what: `Rack ${rack}, look again`,
      why: `Signed, and not as it was since ${time(since)}: ${changed.map((c) => `${keyName(c.item).toLowerCase()} now ${resultName[c.is]?.toLowerCase() ?? c.is}`).join(", ")}`,
      result: "watch",
      word: "Look again",
      href: `/racks/${rack}/release`,
      stage: "release",
    });
  for (const file of line.baths) {
    if (!file.nextCheckBy) continue;
    const overdue = file.nextCheckBy.getTime() < now;
    const leaving = file.series.find((s) => s.nextCheckWhy === "forecast");
    const worst = file.series.find((s) => s.points.at(-1)?.result === file.result);
    const last = worst?.points.at(-1);
    const reacting = file.series.find((s) => s.reaction);
    const why = reacting?.reaction
      ? `${parameterName[reacting.parameter]} out since ${time(reacting.reaction.since)}. ${reacting.reaction.what}`
      : file.result !== "out" && leaving?.forecast?.kind === "forecast" && leaving.forecast.limit !== null
        ? `${parameterName[leaving.parameter]} moves toward ${bathValue(leaving.parameter, leaving.forecast.limit, units)}; check before it may leave the window`
        : last && file.result !== "in"
          ? `${parameterName[worst?.parameter ?? ""]} read ${bathValue(worst?.parameter ?? "", last.value, units)} at ${time(last.at)}`
          : overdue
            ? `Last round ${span(now - (last?.at.getTime() ?? now))} ago`
            : "All values in at the last round";
    items.push({
      // A bath that is out stands first until a good check closes it, whenever that check is due.
      atMs: reacting ? Math.min(now, file.nextCheckBy.getTime()) : file.nextCheckBy.getTime(),
      what: file.bath.data.name,
      why,
      result: file.result === "out" ? "out" : overdue || file.result === "watch" ? "watch" : "in",
      word: overdue ? "Check overdue" : `Check by ${time(file.nextCheckBy)}`,
      href: `/pretreat/${bathSlug(file.bath.code)}`,
      stage: "pretreat",
      pressing: "hours",
    });
  }
  for (const rack of line.racks) {
    const before = items.length;
    const add = (item: DueItem) => items.push({ ...item, stage: rack.stage });
    if (rack.what === "bare" && rack.bareSinceMs !== null) {
      const limit = rack.bareSinceMs + line.bareLimitHours * 3_600_000;
      add({
        atMs: limit,
        what: `Rack ${rack.number}, bare metal`,
        why: `Blasted ${time(new Date(rack.bareSinceMs))}; the limit is ${line.bareLimitHours} h${line.humidityPercent === null ? "" : ` at ${line.humidityPercent.toFixed(0)} % humidity`}`,
        result: limit < now ? "out" : "in",
        word: limit < now ? "Past limit" : `${span(now - rack.bareSinceMs)} bare`,
        href: `/racks/${rack.number}/prepare`,
        pressing: "hours",
      });
    }
    const flashedOff = (rack.wipedAtMs ?? 0) + line.flashOffMinutes * 60_000;
    if (rack.wipedAtMs !== null && flashedOff > now)
      add({
        atMs: flashedOff,
        what: `Rack ${rack.number}, solvent`,
        why: `Wiped ${time(new Date(rack.wipedAtMs))}; it flashes off for ${line.flashOffMinutes} min before powder or heat`,
        result: "watch",
        word: `Wait ${Math.ceil((flashedOff - now) / 60_000)} min`,
        href: `/racks/${rack.number}/prepare`,
      });
    const sealBy = (rack.unsealedSinceMs ?? 0) + line.unsealedLimitHours * 3_600_000;
    if (rack.unsealedSinceMs !== null && now > sealBy - SAID_BEFORE * line.unsealedLimitHours * 3_600_000)
      add({
        atMs: sealBy,
        what: `Rack ${rack.number}, unsealed coat`,
        why: `Out of the conversion bath ${span(now - rack.unsealedSinceMs)} ago; it protects for ${line.unsealedLimitHours} h, then it is washed again`,
        result: sealBy < now ? "out" : "watch",
        word: sealBy < now ? "Wash again" : `Coat by ${time(new Date(sealBy))}`,
        href: `/racks/${rack.number}/coat`,
        pressing: "hours",
      });
    if (rack.next === "film")
      add({
        atMs: now,
        what: `Rack ${rack.number}, film`,
        why: `${rack.part}: ${rack.readings === 0 ? `out of the oven ${ago(rack)}, no reading yet` : `${countOf(rack.asked - rack.readings, "reading")} to go`}`,
        result: "unknown",
        word: `${rack.readings} of ${rack.asked}`,
        href: nextHref(rack.number, "film"),
      });
    if (rack.next === "trace")
      add({
        atMs: now,
        what: `Rack ${rack.number}, trace`,
        why: `${rack.part}: out of the oven ${ago(rack)} with no metal temperature on record, so its cure is not known`,
        result: "unknown",
        word: "No trace",
        href: nextHref(rack.number, "trace"),
      });
    if (rack.next === "tests")
      add({
        atMs: now,
        what: `Rack ${rack.number}, tests`,
        why: `${rack.part}: film is read; ${testsToCome(rack)}`,
        result: "unknown",
        word: "To test",
        href: nextHref(rack.number, "tests"),
      });
    if (rack.what === "held" || rack.what === "adhesion-out" || rack.what === "defect")
      add({
        atMs: now,
        what: `Rack ${rack.number}, ${rack.stage}`,
        why: `${rack.part}: ${[whatIsWrong(rack), rack.what === "held" ? `held for a lead ${ago(rack)}` : ""].filter(Boolean).join(", ")}`,
        result: "out",
        word: rack.what === "held" ? "Held" : "Look",
        href: `/racks/${rack.number}/release`,
      });
    if (rack.what === "to-touch-up" || rack.what === "to-coat-again")
      add({
        atMs: now,
        what: `Rack ${rack.number}, ${rack.what === "to-touch-up" ? "touch up" : "coat again"}`,
        why: `${rack.part}: ${rack.what === "to-touch-up" ? "places to touch up, decided" : "powder taken off"} ${ago(rack)}`,
        result: "watch",
        word: rackStateName[rack.what],
        href: nextHref(rack.number, rack.what === "to-touch-up" ? "touch-up" : "coat-again"),
      });
    if (rack.what === "to-recoat" || rack.what === "to-strip")
      add({
        atMs: now,
        what: `Rack ${rack.number}, back to prepare`,
        why: `${rack.part}: sent back ${span(now - rack.since.getTime())} ago to ${rack.what === "to-strip" ? "strip and do again" : "scuff and recoat"}`,
        result: "watch",
        word: rack.what === "to-strip" ? "To strip" : "To recoat",
        href: `/racks/${rack.number}/prepare`,
      });
    if (rack.what === "to-release")
      add({
        atMs: now,
        what: `Rack ${rack.number}, release`,
        why: `${rack.part}: measured and tested`,
        result: "in",
        word: "To release",
        href: `/racks/${rack.number}/release`,
      });
    // What is only on its way is told last: nothing of it is late by itself.
    if (items.length === before && rack.next && rack.next !== "pull")
      add({
        atMs: null,
        what: `Rack ${rack.number}, ${nextName[rack.next].toLowerCase()}`,
        why: `${rack.part}: ${rack.open ? "in" : "out of"} ${(passageName[rack.passage] ?? rack.passage).toLowerCase()} ${ago(rack)}`,
        result: "in",
        word: rackStateName[rack.what],
        href: nextHref(rack.number, rack.next),
      });
  }
  for (const stage of railStages) {
    const carried = line.racks.filter((r) => r.stage === stage).length;
    if (line.counts[stage] > carried)
      items.push({
        atMs: null,
        what: `${line.counts[stage] - carried} more racks`,
        why: `At ${stageNames[stage]?.toLowerCase()} there are ${line.counts[stage]}; those most pressing are named here`,
        result: "unknown",
        word: "See all",
        href: `/racks?stage=${stage}`,
        stage,
      });
  }
  for (const { item, done, standing } of line.upkeep) {
    if (standing.state === "done" || standing.state === "never") continue;
    items.push({
      // A day late is not more pressing than a bath that is an hour late.
      atMs: standing.state === "overdue" ? now : standing.dueMs,
      what: item.data.what,
      why:
        standing.state === "not-in-order"
          ? (done[0]?.note ?? "Found not in order")
          : `${item.data.look.split(/[.;:]/)[0]}. Last ${span(now - (done[0]?.at.getTime() ?? now))} ago`,
      result: standing.result,
      word: upkeepWord(standing, now, line.timeZone),
      href: `/upkeep#${item.code}`,
    });
  }
  if (line.daysWithoutBackup !== null)
    items.push({
      atMs: null,
      what: "No backup",
      why: "What is on this machine alone is lost with it",
      result: "watch",
      word: `None for ${countOf(line.daysWithoutBackup, "day")}`,
      href: "/shop/backup",
    });
  for (const c of line.complaints)
    items.push({
      atMs: c.at.getTime(),
      what: `Complaint of ${c.customer}, rack ${c.rack}`,
      why: c.what,
      result: "watch",
      word: `Unanswered ${span(now - c.at.getTime())}`,
      href: `/causes/complaints/${c.id}`,
    });
  for (const a of line.actions) {
    const due = a.dueOn === null ? a.since.getTime() : Date.parse(`${a.dueOn}T12:00:00Z`);
    const late = due <= now;
    items.push({
      atMs: due,
      what: `Case ${a.caseNumber}, corrective action`,
      why: `${a.action} (${a.who})`,
      result: a.state === "did-not-work" ? "out" : late ? "watch" : "unknown",
      word:
        a.state === "did-not-work"
          ? "It came back"
          : a.state === "done"
            ? late
              ? "Did it work?"
              : `Looked at in ${span(due - now)}`
            : late
              ? "Is it done?"
              : `In ${span(due - now)}`,
      href: `/causes/${a.caseNumber}#action`,
    });
  }
  // Hours ahead it is no work of this shift.
  for (const panel of line.panels.filter((p) => p.dueAt.getTime() <= now + DAY_MS))
    items.push({
      atMs: panel.dueAt.getTime(),
      what: `Panel ${panel.number}, ${panel.cabinet.replace("-", " ")}`,
      why: `${panel.nextHours} h: take it out, read it, put it back; for ${countOf(panel.racks.length, "rack")} ${panel.racks.slice(0, 3).join(", ")}`,
      result: panel.dueAt.getTime() <= now ? "watch" : "unknown",
      word: panel.dueAt.getTime() <= now ? `Due ${span(now - panel.dueAt.getTime())}` : `At ${panel.nextHours} h`,
      href: `/test/panels/${encodeURIComponent(panel.number)}`,
      stage: "test",
    });
  const toVisit = visits.filter((s) => s.due.at.getTime() <= now + VISIT_SAID_MS);
  for (const s of toVisit.slice(0, VISITS_NAMED))
    items.push({
      atMs: s.due.why === "never-seen" ? null : s.due.at.getTime(),
      what: `${s.name}, visit`,
      why: `${s.site}: ${visitDueName[s.due.why]}${s.lastVisit ? `; last seen ${span(now - s.lastVisit.getTime())} ago` : ""}`,
      result: s.due.at.getTime() <= now ? "watch" : "unknown",
      word: s.due.at.getTime() <= now ? "Visit due" : `In ${span(s.due.at.getTime() - now)}`,
      href: `/field/${s.code.toLowerCase()}`,
      stage: "field",
    });
  if (toVisit.length > VISITS_NAMED)
    items.push({
      atMs: null,
      what: `${toVisit.length - VISITS_NAMED} more structures`,
      why: "To be visited by now or within a month",
      result: "watch",
      word: "See all",
      href: "/field",
      stage: "field",
    });
  for (const { name, standing } of line.instrumentsDue) {
    const { result, words } = verificationSaid(standing);
    items.push({
      atMs: standing.daysLeft === null ? null : now + standing.daysLeft * DAY_MS,
      what: name,
      why: "Its readings stand on its laboratory’s word",
      result,
      word: words.charAt(0).toUpperCase() + words.slice(1),
      href: "/shop/instruments",
    });
  }
  for (const open of line.openCases)
    items.push({
      atMs: null,
      what: `Case ${open.number}`,
      why: `${open.defect.replaceAll("-", " ")}, ${open.zone.toLowerCase()}`,
      result: "watch",
      word: "Not confirmed",
      href: `/causes/${open.number}`,
    });
  const unnamed = line.openCaseCount - line.openCases.length;
  if (unnamed > 0)
    items.push({
      atMs: null,
      what: `${unnamed} more cases`,
      why: `${line.openCaseCount} cases have no confirmed cause`,
      result: "watch",
      word: "See all",
      href: "/causes",
    });
  return items.sort(byUrgency(now));
}
