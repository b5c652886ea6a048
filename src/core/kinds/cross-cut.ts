import * as v from "valibot";

import { entry, filled, number, panelNo, uuid, whole } from "./fields";
import { defineKind } from "./kind";

/** A cut with tape: the lattice, or the X where the film is too thick for it. */
export const crossCut = defineKind({
  kind: "cross-cut",
  tables: {
    cross_cut: {
      removed_percent: "float8?",
      squares_lost: "int?",
      squares: "int?",
      spacing_mm: "float8?",
      iso: "int",
      astm: "text",
      on_panel: "boolean",
      /** "x-cut" where it was one; its grade stands in `astm`, what that is worth on the lattice in `iso`. */
      method: "text?",
      tear_mm: "float8?",
      panel_no: "text?",
      /** Of one read from a photo: the photo, what the machine read, and each square's share as it was accepted. */
      photo_id: "uuid?",
      machine_percent: "float8?",
      shares: "jsonb?",
    },
  },
  also: ["stands_for"],
  change: false,
  superseded: "by-correction",
  entries: {
    "cross-cut": {
      may: "inspect",
      schema: entry("cross-cut", {
        rack: filled(20),
        squaresLost: whole(0, 100),
        squares: v.picklist([25, 100], "is neither 25 nor 100"),
        spacingMm: v.nullable(number(0.5, 5)),
        onPanel: v.boolean(),
        panel: panelNo,
      }),
    },
    "cross-cut-photo": {
      may: "inspect",
      schema: v.pipe(
        entry("cross-cut-photo", {
          rack: filled(20),
          photo: uuid,
          squares: v.picklist([25, 100], "is neither 25 nor 100"),
          spacingMm: v.nullable(number(0.5, 5)),
          machinePercent: number(0, 100),
          /** Share of each square that came off as it was accepted, row by row, 0–1. */
          shares: v.pipe(v.array(number(0, 1)), v.maxLength(100)),
          onPanel: v.boolean(),
          panel: panelNo,
        }),
        v.forward(
          v.check((x) => x.shares.length === x.squares, "are not as many as there are squares"),
          ["shares"],
        ),
      ),
    },
    "x-cut": {
      may: "inspect",
      schema: v.pipe(
        entry("x-cut", {
          rack: filled(20),
          off: v.picklist(["none", "trace", "tear", "most", "beyond"]),
          tearMm: v.optional(v.nullable(number(0, 100)), null),
          onPanel: v.boolean(),
          panel: panelNo,
        }),
        v.forward(
          v.check((x) => x.off !== "tear" || x.tearMm !== null, "is missing: how wide it tore to one side of a cut"),
          ["tearMm"],
        ),
      ),
    },
  },
});
