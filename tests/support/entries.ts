import { storeEntry } from "@/server/entries/store-entry";
import { makeRack } from "@/server/jobs/make-job";
import { newId, now } from "@/server/now";
import { type Person, person, type TestDatabase } from "./database";

/** An entry with an id and key of its own, at a moment. */
export const entryAt = (at: Date, rest: object) => {
  const id = newId();
  return { id, idempotencyKey: `test:${id}`, happenedAt: at.toISOString(), ...rest };
};

/** Stores an entry as a person and throws with its failure when it is refused: for what a test takes for granted. */
export async function stored(t: TestDatabase, who: Person, at: Date, rest: object): Promise<string> {
  const outcome = await storeEntry(t.app, who, entryAt(at, rest), new Date(Math.max(at.getTime(), now().getTime())));
  if (!outcome.ok) throw new Error(`${JSON.stringify(rest)}: ${JSON.stringify(outcome.failure)}`);
  return outcome.recordId;
}

/** A round of a bath as it was typed, plain numbers in its own units. */
export const bathRound = (bath: string, values: Record<string, number>, over: object = {}) => ({
  kind: "bath-check",
  bath,
  values: Object.entries(values).map(([parameter, value]) => ({
    parameter,
    value,
    typed: String(value),
    typedUnit: "",
  })),
  ...over,
});

export const entityId = async (t: TestDatabase, kind: string, code: string): Promise<string> =>
  (
    await t.app
      .selectFrom("setup_entity")
      .select("id")
      .where("kind", "=", kind)
      .where("code", "=", code)
      .executeTakeFirstOrThrow()
  ).id;

/** A job of the test's own, as it stands once it was taken in. */
export async function ownJob(
  t: TestDatabase,
  number: string,
  {
    part = "FERRY-SEAT",
    powder = "GR-505",
    customer = "C1",
    stages = ["blast", "conversion", "booth", "oven"] as readonly string[],
    primer = false,
    pieces = null as number | null,
    dueOn = null as string | null,
    asked = {} as object,
    at = now(),
  } = {},
): Promise<void> {
  await t.app
    .insertInto("job")
    .values({
      id: newId(),
      number,
      customer_id: await entityId(t, "customer", customer),
      part_id: await entityId(t, "part", part),
      powder_id: await entityId(t, "powder", powder),
      received_at: at,
      due_on: dueOn,
      requirement: JSON.stringify({
        film: { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 },
        adhesionWorstIso: 1,
        cureDecidedBy: "index",
        ...asked,
      }),
      plan: JSON.stringify({ stages, primer, exposure: ["weather"], offered: [], pieces }),
      created_by: "ines",
    })
    .execute();
}

const lead = person("lead", "ines");
/** A rack of a demo part under a job of its own. */
export async function freshRack(
  t: TestDatabase,
  number: string,
  {
    part = "FERRY-SEAT",
    powder = "GR-505",
    customer = "C1",
    stages = ["blast", "booth", "oven"],
    primer = false,
    /** Beside film, adhesion and cure. */
    asked = {} as object,
    at = now(),
  } = {},
): Promise<string> {
  await ownJob(t, `J-${number}`, { part, powder, customer, stages, primer, asked, at });
  const rack = await makeRack(t.app, lead, { job: `J-${number}`, number, pieces: 2 }, at);
  if (!rack.ok) throw new Error(JSON.stringify(rack.failure));
  return number;
}

/** One that is coated a minute after it was hung: it may go into an oven. */
export async function coatedRack(
  t: TestDatabase,
  number: string,
  options: Parameters<typeof freshRack>[2] = {},
): Promise<string> {
  await freshRack(t, number, options);
  const { at = now(), powder = "GR-505" } = options;
  await stored(t, lead, new Date(at.getTime() + 60_000), { ...aCoat(powder), rack: number });
  return number;
}
/** A top coat as it is entered, with nothing unusual about it. */
export const aCoat = (powder = "GR-505") => ({
  kind: "coat",
  coatNo: 1,
  layer: "top",
  lot: `${powder}/2611-4`,
  booth: "booth 1",
  kv: 70,
  currentUa: null,
  gunAirKPa: null,
  distanceMm: null,
  earthMohm: 0.3,
  hookCycles: null,
  sprayedHot: null,
  colourChangeBefore: null,
  reclaimPercent: null,
});

/** Film on every spot of the ferry seat at one value, with a place or two of its own. */
export const seatFilm = (um: number, own: Record<string, number> = {}) =>
  ["S", "L"].flatMap((face) =>
    [1, 2, 3, 4, 5].flatMap((n) =>
      [0, 1, -1].map((d) => ({
        face,
        spot: `${face}${n}`,
        valueUm: (own[`${face}${n}`] ?? um) + d,
        typed: String((own[`${face}${n}`] ?? um) + d),
      })),
    ),
  );
