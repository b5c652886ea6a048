import { crossCutFromSquares, crossCutGrade, isoOfXCut, xCutGrade } from "@/core/bench";
import { NOTHING_PERCENT } from "@/core/photo";
import { tested } from "../bench/find-panel";
import { refuse } from "../outcome";
import type { Makes } from "./made";

/** Failures of both: `unknown-rack`, those of the core's grades and of `tested`. */
export const makes: Makes<"cross-cut" | "cross-cut-photo" | "x-cut"> = {
  "cross-cut": async ({ db, person }, entry) => {
    const grade = crossCutFromSquares(entry.squaresLost, entry.squares);
    if (!grade.ok) return refuse(grade.error);
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    return {
      ok: true,
      where: on.value.where,
      details: {
        cross_cut: [
          {
            removed_percent: grade.value.removedPercent,
            squares_lost: entry.squaresLost,
            squares: entry.squares,
            spacing_mm: entry.spacingMm,
            iso: grade.value.iso,
            astm: grade.value.astmB,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
  "cross-cut-photo": async ({ db, person }, entry) => {
    const removedPercent = (100 * entry.shares.reduce((a, b) => a + b, 0)) / entry.shares.length;
    // So little that it is the edge of the cuts themselves is nothing.
    const grade = crossCutGrade(removedPercent < NOTHING_PERCENT ? 0 : removedPercent);
    if (!grade.ok) return refuse(grade.error);
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    const photo = await db
      .selectFrom("record")
      .select("id")
      .where("id", "=", entry.photo)
      .where("kind", "=", "photo")
      .where("rack_id", "=", on.value.where.rackId)
      .executeTakeFirst();
    if (!photo) return refuse({ kind: "not-of-this-rack", number: entry.rack });
    return {
      ok: true,
      kind: "cross-cut",
      where: on.value.where,
      details: {
        cross_cut: [
          {
            removed_percent: grade.value.removedPercent,
            squares: entry.squares,
            spacing_mm: entry.spacingMm,
            iso: grade.value.iso,
            astm: grade.value.astmB,
            method: "photo",
            photo_id: photo.id,
            machine_percent: entry.machinePercent,
            shares: entry.shares,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
  "x-cut": async ({ db, person }, entry) => {
    const grade = xCutGrade(
      entry.off === "tear" ? { off: "tear", mm: entry.tearMm ?? Number.NaN } : { off: entry.off },
    );
    if (!grade.ok) return refuse(grade.error);
    const on = await tested(db, person, entry);
    if (!on.ok) return refuse(on.failure);
    return {
      ok: true,
      kind: "cross-cut",
      where: on.value.where,
      details: {
        cross_cut: [
          {
            iso: isoOfXCut(grade.value),
            astm: grade.value,
            method: "x-cut",
            tear_mm: entry.off === "tear" ? entry.tearMm : null,
            ...on.value.panel,
          },
        ],
        ...on.value.standsFor,
      },
    };
  },
};
