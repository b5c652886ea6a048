import * as v from "valibot";
import { entry, filled, number, text, whole } from "./fields";
import { defineKind } from "./kind";

/** A panel taken out of its cabinet after so many hours, read and put back: creep, blisters, rust. */
export const panelReading = defineKind({
  kind: "panel-reading",
  tables: {
    panel_reading: {
      panel_no: "text",
      cabinet: "text",
      hours: "float8",
      creep_mm: "float8?",
      widths_mm: "float8[]?",
      scribe_mm: "float8?",
      blisters: "text?",
      rust_ri: "int?",
      /** When it is read next; null where it came out for good. */
      next_hours: "float8?",
      note: "text?",
    },
  },
  also: ["stands_for"],
  change: true,
  superseded: "by-correction",
  entries: {
    "panel-reading": {
      may: "inspect",
      schema: v.pipe(
        entry("panel-reading", {
          panel: filled(40),
          cabinet: v.picklist(["salt-spray", "humidity"]),
          /** Hours in the cabinet in all; 0 as it goes in. */
          hours: number(0, 20_000),
          widthsMm: v.pipe(v.array(number(0, 200)), v.maxLength(200)),
          scribeMm: v.nullable(number(0, 20)),
          blisters: text(40),
          rustRi: v.nullable(whole(0, 5)),
          nextHours: v.nullable(number(0, 20_000)),
          note: text(400),
        }),
        v.forward(
          v.check(
            (x) => x.widthsMm.length === 0 || x.scribeMm !== null,
            "is missing: the scribe’s own width; 0 where it has none",
          ),
          ["scribeMm"],
        ),
        v.forward(
          v.check((x) => x.nextHours === null || x.nextHours > x.hours, "are not after those it has had"),
          ["nextHours"],
        ),
      ),
    },
  },
});
