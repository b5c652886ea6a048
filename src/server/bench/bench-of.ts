import type { Kysely } from "kysely";
import { type AdhesionMethod, adhesionMethod, type CureTest, cureTests } from "@/core/bench";
import { mean } from "@/core/statistics";
import type { Database } from "@/db/schema";
import { filmSets } from "../rack/film-layers";
import type { RackFile } from "../rack/load-rack";
import type { BenchItem } from "../rack/verdict/bench";
import { siteAt } from "../setup/setup-data";

export type Limits = { readonly lower: number | null; readonly upper: number | null };
/** How adhesion is cut on this film, and what that was chosen by. */
export type ChosenMethod = {
  readonly method: AdhesionMethod;
  /** Mean film it goes by, µm; null where none was read, and the usual film of the powder stands for it. */
  readonly meanUm: number | null;
  readonly byUm: number;
  readonly scale: "iso" | "astm";
};

/** The cut that film and metal ask for, by the shop's scale. Metals are hard; the film is read, else the powder's own range. */
export async function chosenMethod(db: Kysely<Database>, rack: RackFile, at: Date): Promise<ChosenMethod | null> {
  const { adhesionScale: scale } = await siteAt(db, at);
  const film = filmSets(rack)
    .flatMap((r) => r.details.thickness_reading ?? [])
    .filter((r) => !r.rejected_reason)
    .map((r) => r.value_um);
  const meanUm = film.length > 0 ? mean(film) : null;
  const { minUm, maxUm } = rack.powder.data;
  const byUm = meanUm ?? (minUm + maxUm) / 2;
  const method = adhesionMethod(byUm, "hard", scale);
  return method.ok ? { method: method.value, meanUm, byUm, scale } : null;
}

/** What is asked of each test: by the job, else by the powder's own sheet. */
export function testLimits(rack: RackFile): Readonly<Partial<Record<CureTest, Limits>>> {
  const { glossGu, swatch, smoothness } = rack.powder.data;
  const sheet: Partial<Record<CureTest, Limits>> = {
    ...(glossGu ? { "gloss-60": { lower: glossGu[0] - glossGu[1], upper: glossGu[0] + glossGu[1] } } : {}),
    ...(swatch ? { colour: { lower: null, upper: swatch.deltaE } } : {}),
    ...(smoothness === null ? {} : { smoothness: { lower: smoothness, upper: null } }),
  };
  for (const { test, lower, upper } of rack.job.requirement.tests)
    if (test !== "pull-off") sheet[test] = { lower, upper };
  return sheet;
}

/** The first test that the job asks for and nobody has done; the gloss where none is open. */
export function firstOpen(items: readonly BenchItem[]): CureTest {
  const open = items.find((i) => i.item === "test" && i.value === null && i.test !== "pull-off");
  const test = open?.item === "test" ? open.test : null;
  return cureTests.find((t) => t === test) ?? "gloss-60";
}

/** What of a part must still fit after the cure: bare areas by their notes, threads, seats, hinges. */
export function fitsOf(rack: RackFile): readonly string[] {
  const { faces, features, marks } = rack.part.data;
  const bare = faces.flatMap((f) =>
    f.areas.filter((a) => a.kind === "bare").map((a) => a.note || `bare area, ${f.name}`),
  );
  const kept = marks.flatMap((m) => ((m.kind === "plug" || m.kind === "mask") && m.note ? [m.note] : []));
  const named = [
    ...(features.includes("threads") ? ["threads"] : []),
    ...(features.includes("fit-surface") ? ["seats and bores"] : []),
    ...(features.includes("hinges") ? ["hinges"] : []),
  ];
  return [...new Set([...bare, ...kept, ...named])];
}

/** The gauge each fit of this rack was tried with last. */
export const gaugesOf = (rack: RackFile): Readonly<Record<string, string>> =>
  Object.fromEntries(
    rack.current.flatMap((r) => (r.details.fit_try ?? []).flatMap((t) => (t.gauge ? [[t.fit, t.gauge]] : []))),
  );

/** Panels that stand for a rack, by number, in the order they were put on record. */
export const panelsOf = (rack: RackFile): readonly string[] => [
  ...new Set(rack.latest.flatMap((r) => r.details.panel?.[0]?.number ?? [])),
];
