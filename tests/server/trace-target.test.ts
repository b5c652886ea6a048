import { expect, test } from "vitest";
import type { TraceFile } from "@/core/instrument-files";
import { proposeLoad, type TraceLoad } from "@/server/imports/trace-target";

const LONDON = "Europe/London";
const load = (recordId: string, doorLocal: string): TraceLoad => ({
  recordId,
  oven: "Oven 1",
  loadNo: recordId,
  doorLocal,
  pulledLocal: null,
  racks: [],
});
/** Summer time: the shop's clock is an hour before UTC's. The one pulled last stands first. */
const loads = [
  load("late", "2026-07-01T15:00:00"),
  load("noon", "2026-07-01T12:00:00"),
  load("early", "2026-07-01T10:30:00"),
];
const file = (startEpochS: number | null, startTimeOfDayS: number | null = null) =>
  ({ startEpochS, startTimeOfDayS }) as TraceFile;
const epoch = (iso: string) => Date.parse(iso) / 1000;
const propose = (f: TraceFile, startLocalS: number | null = null, among = loads) =>
  proposeLoad(among, f, startLocalS, LONDON);

test("a file's own start finds the load whose door closed nearest to it, within the hour", () => {
  expect(propose(file(epoch("2026-07-01T11:10:00Z")))).toEqual({
    load: "noon",
    startLocal: "2026-07-01T12:10:00",
    startFrom: "file",
  });
  // Between two of them the nearer one.
  expect(propose(file(epoch("2026-07-01T10:14:00Z"))).load).toBe("early");
  expect(propose(file(epoch("2026-07-01T10:16:00Z"))).load).toBe("noon");
  // An hour off is near, a second more is of no load.
  expect(propose(file(epoch("2026-07-01T12:00:00Z"))).load).toBe("noon");
  expect(propose(file(epoch("2026-07-01T12:00:01Z")))).toMatchObject({ load: null, startFrom: "file" });
});
test("a start given before the table is by the shop's clock", () => {
  expect(propose(file(null), epoch("2026-07-01T12:10:00Z"))).toEqual({
    load: "noon",
    startLocal: "2026-07-01T12:10:00",
    startFrom: "file",
  });
});
test("without a day it is of the load pulled last: at its door, or at the time of day nearest to that", () => {
  expect(propose(file(null))).toEqual({ load: "late", startLocal: "2026-07-01T15:00:00", startFrom: "load" });
  expect(propose(file(null, 15 * 3600 + 120)).startLocal).toBe("2026-07-01T15:02:00");
  expect(propose(file(null, 15 * 3600), null, [load("night", "2026-07-02T00:05:00")]).startLocal).toBe(
    "2026-07-01T15:00:00",
  );
  expect(propose(file(null), null, [])).toEqual({ load: null, startLocal: null, startFrom: null });
});
