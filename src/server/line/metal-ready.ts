import type { Kysely } from "kysely";
import { washStages } from "@/core/line";
import { bareLimitHours, flashOffHold, type MetalHold, type MetalReady, powderHold } from "@/core/preparation";
import type { Failure } from "@/core/result";
import type { Database } from "@/db/schema";
import type { RackFile } from "../rack/load-rack";
import { passUnder } from "../rack/passes";
import { unlessSetAside } from "../rack/set-aside";
import type { SetupData } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { airBefore } from "./air";

const CLEANS: ReadonlySet<string> = new Set(["sand", "degrease"]);

/** What was done to this rack's bare metal up to a moment, from its records. */
function metalReady(rack: RackFile, at: Date): MetalReady {
  const done = rack.evidence.flatMap((r) =>
    r.base.happened_at > at
      ? []
      : (r.details.prep_step ?? []).filter((s) => s.done).map((s) => ({ atMs: r.base.happened_at.getTime(), ...s })),
  );
  const left = (stages: readonly string[]) =>
    rack.evidence
      .flatMap((r) => r.details.passage ?? [])
      .filter((p) => stages.includes(p.stage))
      .map((p) => (p.left_at ?? p.entered_at).getTime())
      .filter((ms) => ms <= at.getTime());
  const newestOf = (ms: readonly number[]) => (ms.length > 0 ? Math.max(...ms) : null);
  const wipe = done.findLast((s) => s.step === "solvent-wipe");
  const how = wipe?.how as { readonly solvent?: unknown } | null | undefined;
  const converted = newestOf(left(["conversion"]));
  const sealed = newestOf(left(["seal"]));
  // What was washed since has no solvent left on it.
  const washed = newestOf(left([...washStages].filter((s) => s !== "dry-off")));
  return {
    wiped:
      wipe && wipe.atMs > (washed ?? 0)
        ? { atMs: wipe.atMs, solvent: typeof how?.solvent === "string" ? how.solvent : null }
        : null,
    blastedMs: newestOf(done.filter((s) => s.step === "blast").map((s) => s.atMs)),
    cleanedMs: newestOf(done.filter((s) => CLEANS.has(s.step)).map((s) => s.atMs)),
    convertedMs: converted !== null && sealed !== null && sealed >= converted ? null : converted,
  };
}

/**
 * Whether the metal holds powder, or the oven, back at a moment, or that was set aside with a reason by one who may.
 * Failures: `metal-not-ready` (hold), `role-refused`. One query for powder, none for the oven.
 */
export async function metalKept(
  db: Kysely<Database>,
  rack: RackFile,
  person: Person,
  site: SetupData<"site">,
  entering: { readonly stage: "booth" | "oven"; readonly at: Date; readonly leftOut: string | null },
): Promise<Failure | null> {
  const ready = metalReady(rack, entering.at);
  const hold = await holdOf(db, rack, ready, site, entering);
  return hold && unlessSetAside({ kind: "metal-not-ready", number: rack.number, hold }, person, entering.leftOut);
}

async function holdOf(
  db: Kysely<Database>,
  rack: RackFile,
  ready: MetalReady,
  site: SetupData<"site">,
  { stage, at }: { readonly stage: "booth" | "oven"; readonly at: Date },
): Promise<MetalHold | null> {
  const wet = flashOffHold(ready, at.getTime(), site.flashOffMinutes);
  // Over an old film or loose powder nothing is bare; where powder was wiped off the metal is bare again.
  const film = passUnder(rack.passes, rack.pass) > 0;
  const covered = film || rack.latest.some((r) => r.base.kind === "coat" && r.base.happened_at <= at);
  if (wet || stage === "oven" || covered) return wet;
  const air = await airBefore(db, at);
  const humidity = air.readings.find((r) => r.quantity === "humidity")?.value ?? null;
  const bare = bareLimitHours(humidity, site.bareLimits, site.bareLimitHours);
  return powderHold(ready, at.getTime(), {
    flashOffMinutes: site.flashOffMinutes,
    bareHours: bare.ok ? bare.value : site.bareLimitHours,
    unsealedHours: site.unsealedLimitHours,
  });
}
