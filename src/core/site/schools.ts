import { type Schools, usualSchools } from "../plan";

/** Ways that good shops do differently: what each holds for it, and where it is at its weakest. */
export const schoolChoices = {
  preparation: {
    label: "Steel is brought to bare metal by",
    usual: usualSchools.preparation,
    options: {
      blast: "blasting: profile and rust out of the pits; thin sheet warps",
      sand: "sanding: no room wanted; leaves scale in corners",
    },
  },
  conversion: {
    label: "Conversion coat on steel",
    usual: usualSchools.conversion,
    options: {
      "iron-phosphate": "iron phosphate: forgiving, warm bath, sludge",
      zirconium: "zirconium: cold, no sludge, wants clean rinses",
    },
  },
  primerCuring: {
    label: "A primer is cured",
    usual: usualSchools.primerCuring,
    options: {
      "primer-gelled": "to gel, its top coat over it: best bond between them",
      "dry-on-dry": "not at all, both baked at once: one bake, thicker film to watch",
      "two-full-cures": "fully, then scuffed: safe to hold, bonds least",
    },
  },
  outgas: {
    label: "Castings are degassed before coating",
    usual: usualSchools.outgasAlwaysForCastings ? "always" : "where-seen",
    options: {
      always: "always: an oven run more, no pinholes found later",
      "where-seen": "where a first panel shows pinholes",
    },
  },
} as const;
export type SchoolName = keyof typeof schoolChoices;
export const schoolNames = Object.keys(schoolChoices) as readonly SchoolName[];
export type SchoolTexts = { readonly [N in SchoolName]: keyof (typeof schoolChoices)[N]["options"] };

export const schoolTexts = (s: Schools): SchoolTexts => ({
  preparation: s.preparation,
  conversion: s.conversion,
  primerCuring: s.primerCuring,
  outgas: s.outgasAlwaysForCastings ? "always" : "where-seen",
});
export const schoolsOf = (t: SchoolTexts): Schools => ({
  preparation: t.preparation,
  conversion: t.conversion,
  primerCuring: t.primerCuring,
  outgasAlwaysForCastings: t.outgas === "always",
});
