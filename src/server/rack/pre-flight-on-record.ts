import {
  judgePreFlight,
  type PreFlightEntry,
  type PreFlightItem,
  type PreFlightJudged,
  type PreFlightLimits,
} from "@/core/coating";
import type { ThreadRecord } from "./load-rack";

/** What was looked at before powder went on, as it was entered. */
export const preFlightEntries = (flight: ThreadRecord): readonly PreFlightEntry[] =>
  (flight.details.pre_flight_item ?? []).map((i) => ({
    item: i.item as PreFlightItem,
    how: i.how as PreFlightEntry["how"],
    value: i.value,
    good: i.good,
    note: i.note ?? "",
  }));

/** A pre-flight on record, judged by these limits. */
export const preFlightOnRecord = (flight: ThreadRecord, limits: PreFlightLimits): PreFlightJudged =>
  judgePreFlight(preFlightEntries(flight), limits, flight.details.pre_flight?.[0]?.situation === "recoat");
