import { type OpenItem, type OrderFault, orderFault } from "@/core/line";
import type { Failure } from "@/core/result";
import type { Person } from "../sign-in/roles";
import type { RackFile } from "./load-rack";
import { openOf } from "./open-of";
import { sentBackFor } from "./passes";
import { unlessSetAside } from "./set-aside";

/** What stands against this rack's entering a stage at a moment, by its own route and records; null where the order holds. */
function faultOf(rack: RackFile, stage: string, at: Date): OrderFault | null {
  const ms = (d: Date) => d.getTime();
  return orderFault(stage, ms(at), {
    route: rack.job.plan.stages,
    passed: rack.evidence.flatMap((r) =>
      (r.details.passage ?? []).map((p) => ({
        stage: p.stage,
        enteredMs: ms(p.entered_at),
        leftMs: p.left_at ? ms(p.left_at) : null,
      })),
    ),
    coatedMs: rack.latest.filter((r) => r.base.kind === "coat").map((r) => ms(r.base.happened_at)),
    baked: rack.latest.flatMap((r) =>
      (r.details.bake ?? []).map((b) => ({
        closedMs: ms(b.door_closed_at),
        pulledMs: b.pulled_at ? ms(b.pulled_at) : traceEnd(r, ms(b.door_closed_at)),
      })),
    ),
    recoat: sentBackFor(rack) === "scuff-and-recoat",
  });
}

/** Where a bake has a trace and nobody noted its pull, it was out by the trace's end; null without one. */
function traceEnd(record: RackFile["thread"][number], closedMs: number): number | null {
  const times = (record.details.bake_channel ?? []).flatMap((c) => c.time_s.at(-1) ?? []);
  return times.length > 0 ? closedMs + 1000 * Math.max(...times) : null;
}

/** Open items that hold the oven's door. */
const holdsOven = (rack: RackFile): readonly OpenItem[] => openOf(rack).filter((o) => o.holds === "oven");

/**
 * The order of work kept, or set aside with a reason by one who may. Failures: `out-of-order` (fault), `open-before-oven`
 * (items), `role-refused` where a reason is given by somebody who may not.
 */
export function orderKept(
  rack: RackFile,
  person: Person,
  entering: { readonly stage: string; readonly at: Date; readonly leftOut: string | null },
): Failure | null {
  const fault = faultOf(rack, entering.stage, entering.at);
  const open = entering.stage === "oven" ? holdsOven(rack) : [];
  if (!fault && open.length === 0) return null;
  const hold = fault
    ? { kind: "out-of-order", number: rack.number, fault }
    : { kind: "open-before-oven", number: rack.number, open: open.map((o) => o.what) };
  return unlessSetAside(hold, person, entering.leftOut);
}
