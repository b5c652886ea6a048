import * as v from "valibot";
import { equipmentRoles } from "@/core/site";
import { upkeepHands, upkeepStages } from "@/core/upkeep";
import { box, finite, point } from "./values";

/** Places a part must pass, with what their mouth lets in and what they carry; guns, air and lines. */
export const equipment = v.object({
  name: v.string(),
  role: v.picklist(equipmentRoles),
  insideMm: v.nullable(box),
  mostKg: v.nullable(finite),
  /** What is noted of its kind, by name. */
  facts: v.optional(v.record(v.string(), v.union([finite, v.string()])), {}),
  /** No longer used; what went through it stays. */
  retired: v.optional(v.boolean(), false),
});

/** A conveyor washer: its stages in order, by their distance from its entrance. */
export const line = v.object({
  name: v.string(),
  usualSpeedMPerMin: finite,
  stages: v.array(v.object({ stage: v.string(), fromM: finite, lengthM: finite })),
});

export const oven = v.object({
  name: v.string(),
  type: v.optional(v.picklist(["batch", "conveyor", "lamps"]), "batch"),
  heat: v.optional(v.picklist(["gas-indirect", "gas-direct", "electric", "infrared"]), "electric"),
  insideMm: v.optional(v.nullable(box), null),
  /** Where racks hang, as seen from the door: share of the width and of the depth, 0–100. */
  places: v.optional(v.array(v.object({ id: v.string(), at: point, note: v.optional(v.string(), "") })), []),
  /** What the air is set to as a rule, °C, and what it may be set to at the most. */
  usualSetPointC: v.optional(finite, 205),
  mostSetPointC: v.optional(finite, 240),
  /** The air's time constant, empty and full, s, and what counts as full, kg of steel; its loss while shut, kW. */
  emptyTauS: v.optional(finite, 140),
  fullTauS: v.optional(finite, 420),
  fullKgSteel: v.optional(finite, 800),
  airAtDoorC: v.optional(finite, 60),
  idleKw: v.optional(finite, 18),
  efficiency: v.optional(finite, 0.6),
  /** The most that places may differ at the hold, °C, and how long recovery after the door may take, s. */
  spreadMostC: v.optional(finite, 10),
  recoveryMostS: v.optional(finite, 600),
  /** Conveyor: stretches in order of travel, usual speed and pitch of the hangers. */
  zones: v.optional(
    v.array(
      v.object({
        name: v.string(),
        heat: v.optional(v.picklist(["infrared", "convection"]), "convection"),
        lengthM: finite,
        airC: finite,
        hWPerM2K: finite,
      }),
    ),
    [],
  ),
  /** Used for nothing else: never one that cooks food. */
  dedicated: v.optional(v.boolean(), true),
  usualSpeedMPerMin: v.optional(finite, 1.2),
  pitchM: v.optional(finite, 1.5),
  habits: v.optional(v.string(), ""),
});

/** What is looked after at fixed intervals, for the line to run as it is set up. */
export const upkeep = v.object({
  what: v.string(),
  stage: v.picklist(upkeepStages),
  everyDays: finite,
  look: v.string(),
  leadsTo: v.string(),
  caution: v.string(),
  hands: v.picklist(upkeepHands),
  /** The equipment it is of, by its code; null where it is of the stage. */
  equipment: v.optional(v.nullable(v.string()), null),
  measure: v.nullable(
    v.object({ name: v.string(), unit: v.string(), lower: v.nullable(finite), upper: v.nullable(finite) }),
  ),
  retired: v.optional(v.boolean(), false),
});
