import type { UnitSystem } from "@/core/units";
import type { RackVerdict } from "@/server/rack/judge-rack";
import type { RackFile, ThreadRecord } from "@/server/rack/load-rack";
import type { Conditions } from "@/server/trace/conditions";
import { clock, dateAndTime, minutesSeconds, span, withUnit } from "../format";
import { decisionWords, itemSentence, parameterName, parameterUnit } from "../words/reasons";
import type { Bead } from "./thread";

const of = (rack: RackFile, kind: string): ThreadRecord[] => rack.current.filter((r) => r.base.kind === kind);
const step = (rack: RackFile, name: string) =>
  of(rack, "prep-step").find((r) => r.details.prep_step?.[0]?.step === name);

/** The thread of a rack, stage by stage, from quote to release. Missing stages are beads too: unknown, said as such. */
export function beadsOf(
  rack: RackFile,
  verdict: RackVerdict,
  conditions: Conditions,
  units: UnitSystem,
  timeZone: string,
): Bead[] {
  const beads: Bead[] = [];
  const add = (bead: Bead) => beads.push(bead);
  const time = (at: Date) => clock(at, timeZone);
  const root = `/racks/${rack.number}`;
  const offered = rack.job.plan.offered[0];
  add({
    key: "plan",
    stage: "Plan",
    time: dateAndTime(rack.job.receivedAt, timeZone).split(",")[0] ?? "",
    href: `/jobs/${rack.job.number}`,
    result: offered && !offered.taken ? "watch" : "in",
    grade: "measured",
    note: "",
    text: offered ? (
      <>
        {offered.what} offered{offered.pricePercent ? ` at +${offered.pricePercent} %` : ""},{" "}
        <b>{offered.taken ? "taken" : "declined"}</b> by {offered.by} on {offered.on}; {offered.risk}
      </>
    ) : (
      <>
        Job {rack.job.number}: {rack.powder.code} {rack.powder.data.name},{" "}
        {rack.job.plan.primer ? "primed" : "one coat"}
      </>
    ),
  });
  const blast = step(rack, "blast");
  const profile = blast?.details.prep_step?.[0]?.value;
  const coat = of(rack, "coat")[0];
  const blastPass = conditions.passages.find((p) => p.stage === "blast");
  const bare = coat && blastPass ? coat.base.happened_at.getTime() - blastPass.enteredAt.getTime() : null;
  add({
    key: "prepare",
    stage: "Prepare",
    time: blast ? time(blast.base.happened_at) : "",
    href: null,
    result: blast ? "in" : "unknown",
    grade: blast?.base.grade ?? "unknown",
    note: "",
    text: blast ? (
      <>
        Blasted; profile{" "}
        <b className="fig">{profile === null || profile === undefined ? "–" : withUnit(profile, "thickness", units)}</b>
        {bare !== null && (
          <>
            , bare <b className="fig">{span(bare)}</b>
          </>
        )}
      </>
    ) : (
      "Blast not recorded"
    ),
  });
  const prebake = step(rack, "prebake")?.details.prep_step?.[0];
  if (prebake)
    add({
      key: "prebake",
      stage: "Outgas",
      time: time(step(rack, "prebake")?.base.happened_at as Date),
      href: null,
      result: prebake.done ? "in" : "watch",
      grade: prebake.done ? "measured" : "by-procedure",
      note: "",
      text: prebake.done ? (
        <>
          Outgassing bake, metal <b className="fig">{withUnit(prebake.value ?? 0, "temperature", units)}</b>
        </>
      ) : (
        <>
          Outgassing bake <b>skipped</b>
        </>
      ),
    });
  const wash = conditions.passages.find((p) => p.stage === "conversion");
  const item = verdict.items.find((i) => i.item === "pretreatment");
  const dry = conditions.passages.find((p) => p.stage === "dry-off");
  const values = conditions.baths.map((b) =>
    `${b.bath.split(" ").slice(0, 2).join(" ")} ${parameterName[b.parameter]} ${b.found.value === null ? "–" : b.found.value.toFixed(b.parameter === "ph" || b.parameter === "concentration" ? 2 : 0)} ${parameterUnit[b.parameter]}`.trim(),
  );
  add({
    key: "pretreat",
    stage: "Pretreat",
    time: wash ? time(wash.enteredAt) : "",
    href: null,
    result: item?.result ?? "unknown",
    grade: item?.grade ?? "unknown",
    note: dry?.seconds ? `dried ${minutesSeconds(dry.seconds)}` : "",
    text: wash ? (
      <>
        {values.slice(0, 3).join(", ")}
        {wash.seconds ? `; contact ${wash.seconds.toFixed(0)} s` : ""}
      </>
    ) : (
      "Wash not recorded"
    ),
  });
  for (const record of of(rack, "coat")) {
    const c = record.details.coat?.[0];
    if (c)
      add({
        key: record.base.id,
        stage: "Coat",
        time: time(record.base.happened_at),
        href: null,
        result: (c.earth_mohm ?? 0) > 1 ? "out" : "in",
        grade: record.base.grade,
        note: "",
        text: (
          <>
            {rack.powder.code} {rack.powder.data.name}, {c.booth}
            {c.kv !== null && (
              <>
                , <b className="fig">{c.kv} kV</b>
              </>
            )}
            {c.earth_mohm !== null && (
              <>
                , earth <span className="fig">{c.earth_mohm} MΩ</span>
              </>
            )}
          </>
        ),
      });
  }
  const cure = verdict.items.find((i) => i.item === "cure");
  const bake = of(rack, "bake")[0];
  if (cure)
    add({
      key: "cure",
      stage: "Cure",
      time: bake ? time(bake.base.happened_at) : "",
      href: bake ? `${root}/cure` : null,
      result: cure.result,
      grade: cure.grade,
      note: bake?.details.bake_place?.[0]
        ? `place ${bake.details.bake_place.find((p) => p.rack_id === rack.id)?.place}`
        : "",
      text: itemSentence(cure, units).text,
    });
  for (const name of ["film", "adhesion", "rub"] as const) {
    const found = verdict.items.find((i) => i.item === name);
    if (!found) continue;
    const record = rack.current.find((r) => r.base.id === found.sources[0]);
    add({
      key: name,
      stage: name === "film" ? "Film" : name === "adhesion" ? "Adhesion" : "Rub",
      time: record ? time(record.base.happened_at) : "",
      href: name === "film" ? `${root}/thickness` : `${root}/bench`,
      result: found.result,
      grade: found.grade,
      note: "",
      text: itemSentence(found, units).text,
    });
  }
  for (const record of of(rack, "defect")) {
    const d = record.details.defect?.[0];
    if (d)
      add({
        key: record.base.id,
        stage: "Defect",
        time: time(record.base.happened_at),
        href: `${root}/release`,
        result: "out",
        grade: record.base.grade,
        note: d.pieces_affected !== null ? `${d.pieces_affected} of ${d.pieces_seen ?? "?"}` : "",
        text: (
          <>
            <b>{d.defect.replaceAll("-", " ")}</b>
            {d.face ? ` on ${d.face}` : ""}
            {d.note ? `: ${d.note}` : ""}
          </>
        ),
      });
  }
  const decided = [...of(rack, "disposition")].reverse()[0];
  const row = decided?.details.disposition?.[0];
  add({
    key: "release",
    stage: "Release",
    time: decided ? time(decided.base.happened_at) : "",
    href: `${root}/release`,
    result: row ? (row.decision === "accept" || row.decision === "concession" ? "in" : "out") : "unknown",
    grade: decided ? "measured" : "unknown",
    note: "",
    text: row ? (
      <>
        <b>{decisionWords[row.decision] ?? row.decision}</b> by {row.signed_name}: {row.note}
      </>
    ) : (
      "No decision yet"
    ),
  });
  return beads;
}
