import { type RailStage, railStages } from "@/core/line";
import type { VerdictResult } from "@/core/verdict";
import { washReadiness } from "../baths/wash-readiness";
import type { Line, RackOnLine } from "./load-line";

export type RailFacts = {
  readonly stages: readonly {
    readonly id: RailStage;
    readonly fact: { readonly text: string | null; readonly prefix: string; readonly sinceMs: number | null };
    /** How many racks there are; the tags are of the most urgent. */
    readonly racks: number;
    readonly tags: readonly { readonly number: string; readonly result: VerdictResult; readonly word: string }[];
  }[];
};

const words: Record<RackOnLine["what"], string> = {
  held: "held",
  "adhesion-out": "adhesion out",
  defect: "defect seen",
  "film-open": "film in hand",
  "to-release": "to release",
  running: "running",
  bare: "bare metal",
  "to-coat-again": "to coat again",
  "to-touch-up": "to touch up",
  "to-recoat": "to scuff and recoat",
  "to-strip": "to strip",
};

/** For each stage the racks hanging there and the one fact that matters now. */
export function railFacts(line: Line, clock: (at: Date) => string): RailFacts {
  return {
    stages: railStages.map((id) => ({
      id,
      racks: line.counts[id],
      tags: line.racks
        .filter((r) => r.stage === id)
        .map((r) => ({ number: r.number, result: r.result, word: words[r.what] })),
      fact: factOf(id, line, clock),
    })),
  };
}

function factOf(
  id: RailStage,
  line: Line,
  clock: (at: Date) => string,
): { text: string | null; prefix: string; sinceMs: number | null } {
  const here = line.racks.filter((r) => r.stage === id);
  const count = line.counts[id];
  const say = (text: string) => ({ text, prefix: "", sinceMs: null });
  switch (id) {
    case "plan":
      return say(
        line.jobs.overdue > 0
          ? `${line.jobs.overdue} of ${line.jobs.open} late`
          : line.jobs.open === 1
            ? "1 job open"
            : `${line.jobs.open} jobs open`,
      );
    case "prepare": {
      const wet = here.find(
        (r) => r.wipedAtMs !== null && r.wipedAtMs + line.flashOffMinutes * 60_000 > line.at.getTime(),
      );
      if (wet?.wipedAtMs)
        return say(`${wet.number} dry ${clock(new Date(wet.wipedAtMs + line.flashOffMinutes * 60_000))}`);
      const bare = here.find((r) => r.bareSinceMs !== null);
      return bare?.bareSinceMs
        ? { text: null, prefix: `${bare.number} bare`, sinceMs: line.at.getTime() - bare.bareSinceMs }
        : say(count > 0 ? `${count} in hand` : "");
    }
    case "pretreat": {
      const first = [...line.baths]
        .filter((b) => b.nextCheckBy)
        .sort((a, b) => (a.nextCheckBy as Date).getTime() - (b.nextCheckBy as Date).getTime())[0];
      const { index } = washReadiness(line.baths, line.at);
      if (!first?.nextCheckBy) return say(index === null ? "" : `ready ${index}`);
      const short = first.bath.code.replace("Tank ", "T");
      // What a bath was when it was looked at is not what it is: the missed check alone is said.
      if (first.nextCheckBy < line.at) return say(`${short} check overdue`);
      return say(`${index === null ? "" : `ready ${index}, `}${short} ${clock(first.nextCheckBy)}`);
    }
    case "coat":
      return say(here[0] ? `${here[0].number} in booth` : "");
    case "cure": {
      const bake = line.bakes[0];
      return say(
        bake
          ? bake.index === null
            ? `${bake.oven} load ${bake.load}`
            : bake.foretold?.overbakedSince
              ? `${bake.oven} over-baked`
              : bake.overdue && bake.pullAt
                ? `${bake.oven} overdue`
                : bake.pullAt && bake.index < 100
                  ? `${bake.oven} pull ${clock(bake.pullAt)}`
                  : bake.cured
                    ? `${bake.oven} pull now`
                    : `${bake.oven} heating`
          : "",
      );
    }
    case "test": {
      const open = here.find((r) => r.what === "film-open");
      return say(open ? `${open.number} in hand` : count > 0 ? `${count} to test` : "");
    }
    case "release": {
      const held = here.filter((r) => r.what === "held").length;
      return say(held ? `${held} held` : count > 0 ? `${count} to release` : "");
    }
    case "field":
      return say(short(line.structuresDue[0]?.name ?? ""));
  }
}

/** The rail has room for so many letters under a stage. */
const RAIL_LETTERS = 20;
const short = (name: string): string =>
  name.length > RAIL_LETTERS ? `${name.slice(0, RAIL_LETTERS - 1).trimEnd()}…` : name;
