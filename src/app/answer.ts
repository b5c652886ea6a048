import type { Kysely } from "kysely";
import { judgeBathValue } from "@/core/bath";
import type { EntryInput } from "@/core/kinds";
import { mean } from "@/core/statistics";
import { placeLimits } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import type { Database } from "@/db/schema";
import { findBath } from "@/server/baths/find-bath";
import { judgeRack } from "@/server/rack/judge-rack";
import { loadRack } from "@/server/rack/load-rack";
import type { Person } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { figure, withUnit } from "@/ui/format";
import { bathValue, bathWindow, parameterName } from "@/ui/words/baths";
import { itemSentence } from "@/ui/words/verdict";

export type Answer = { readonly result: VerdictResult; readonly text: string };

/** Which item of a rack's verdict an entry of a kind is judged by. */
const itemOf: Partial<Record<EntryInput["kind"], string>> = { "cross-cut": "adhesion", "solvent-rub": "rub" };

/** What an entry just kept comes to, in words, against what is asked: film, bath, cross-cut, rub; null where nothing is asked of it. */
export async function answerTo(
  db: Kysely<Database>,
  person: Person,
  entry: EntryInput,
  units: UnitSystem,
  at: Date,
): Promise<Answer | null> {
  if (entry.kind === "bath-check") {
    const bath = await findBath(db, entry.bath, at);
    const judged = entry.values.flatMap((v) => {
      const window = bath?.data.windows[v.parameter];
      if (!window) return [];
      const result = judgeBathValue(v.value, window);
      return [
        {
          result,
          text: `${parameterName[v.parameter]} ${bathValue(v.parameter, v.value, units)} on ${bathWindow(v.parameter, window, units)}`,
        },
      ];
    });
    return worstOf(judged);
  }
  if (entry.kind === "thickness") {
    const rack = await loadRack(db, person, entry.rack);
    if (!rack) return null;
    const { lowestUm, highestUm } = placeLimits(rack.job.requirement.film);
    const meanUm = mean(entry.readings.map((r) => r.valueUm));
    const asked =
      highestUm === null
        ? `at least ${withUnit(lowestUm, "thickness", units)}`
        : `${figure(lowestUm, "thickness", units).text}–${withUnit(highestUm, "thickness", units)}`;
    const result =
      meanUm < lowestUm * (1 - 1e-9) || (highestUm !== null && meanUm > highestUm * (1 + 1e-9)) ? "out" : "in";
    return { result, text: `${withUnit(meanUm, "thickness", units)}, ${asked} asked of a place` };
  }
  const item = itemOf[entry.kind];
  if (!item || !("rack" in entry) || typeof entry.rack !== "string") return null;
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return null;
  const found = judgeRack(rack, await conditionsWhenPassed(db, [rack.id], rack.hungAt), at).items.find(
    (i) => i.item === item,
  );
  if (!found) return null;
  const said = itemSentence(found, units);
  return { result: found.result, text: `${said.word}: ${said.text}` };
}

const severity: Record<VerdictResult, number> = { out: 0, watch: 1, unknown: 2, in: 3 };
const worstOf = (judged: readonly Answer[]): Answer | null =>
  judged.length === 0
    ? null
    : {
        result: [...judged].sort((a, b) => severity[a.result] - severity[b.result])[0]?.result ?? "unknown",
        text:
          judged.filter((j) => j.result !== "in").length > 0
            ? judged
                .filter((j) => j.result !== "in")
                .map((j) => j.text)
                .join("; ")
            : judged.map((j) => j.text).join("; "),
      };
