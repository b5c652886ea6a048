import * as v from "valibot";
import { BEYOND_ANY_FILM_UM } from "../thickness";
import { entry, filled, number, text } from "./fields";
import { defineKind } from "./kind";

/** Film read on a panel: a primer alone, which cannot be read on the part once the top coat lies on it, or the system in all. */
export const panelFilm = defineKind({
  kind: "panel-film",
  tables: {
    panel_film: { panel_no: "text", layer: "text", values_um: "float8[]", mean_um: "float8", note: "text?" },
  },
  also: ["stands_for"],
  change: false,
  superseded: "by-correction",
  entries: {
    "panel-film": {
      may: "inspect",
      schema: entry("panel-film", {
        panel: filled(40),
        layer: v.picklist(["primer", "all"]),
        valuesUm: v.pipe(
          v.array(number(0, BEYOND_ANY_FILM_UM)),
          v.minLength(3, "are fewer than 3: read it at three places or more"),
          v.maxLength(60, "are more than 60"),
        ),
        note: text(400),
      }),
    },
  },
});
