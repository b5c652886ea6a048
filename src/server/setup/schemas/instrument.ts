import * as v from "valibot";
import { columnRoles, dateOrders, timeForms } from "@/core/instrument-files";
import { finite } from "./values";

export const instrument = v.object({
  name: v.string(),
  kind: v.string(),
  serial: v.string(),
  /** Verified by a laboratory every so many days; last on, and the number of its certificate. */
  verifyEveryDays: v.optional(v.nullable(finite), null),
  verifiedOn: v.optional(v.nullable(v.pipe(v.string(), v.isoDate())), null),
  certificate: v.optional(v.string(), ""),
  retired: v.optional(v.boolean(), false),
});

/** How a recorder's files of one shape are read, as somebody said it once. */
export const traceLayout = v.object({
  columns: v.array(
    v.object({ heading: v.string(), is: v.picklist(columnRoles), name: v.string(), rack: v.nullable(v.string()) }),
  ),
  form: v.nullable(v.picklist(timeForms)),
  order: v.nullable(v.picklist(dateOrders)),
  unit: v.nullable(v.picklist(["degC", "degF"])),
  mark: v.picklist([".", ","]),
  zone: v.picklist(["shop", "utc"]),
});
