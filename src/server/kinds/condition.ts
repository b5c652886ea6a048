import { conditionQuantities } from "@/core/preparation";
import { refuse } from "../outcome";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"conditions"> = {
  conditions: (_, entry) => conditions(entry),
};

/** Readings of air and metal: each stands as a record of its own, so that each can be corrected by itself. */
function conditions(entry: Of<"conditions">): Made {
  const names = entry.values.map((x) => x.quantity);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  return {
    ok: true,
    several: entry.values.map(({ quantity, value }) => ({
      name: quantity,
      kind: "condition",
      happenedAt: entry.happenedAt,
      grade: "measured",
      details: { condition: [{ quantity, value, unit: conditionQuantities[quantity].unit, place: entry.place }] },
    })),
  };
}
