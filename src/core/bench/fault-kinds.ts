/** A closer word for a defect as it is seen, with the finding of the causes that it settles, where it settles one. */
export type SubKind = { readonly id: string; readonly label: string; readonly finding: string | null };

const sub = (id: string, label: string, finding: string | null = null): SubKind => ({ id, label, finding });

/** By defect of the atlas: what kind of it. How a defect looks, and where alone it sits, say more of its cause than its name. */
export const subKinds: Readonly<Record<string, readonly SubKind[]>> = {
  "orange-peel": [
    sub("coarse", "coarse, wavy", "texture-coarse"),
    sub("tight", "fine, tight or dry", "texture-tight"),
    sub("starred", "starred", "texture-starred"),
    sub("recess", "in recesses only", "only-recesses"),
    sub("oven-place", "one place of the oven", "one-oven-place"),
  ],
  pinholes: [
    sub("to-metal", "hole down to the metal", "hole-to-metal"),
    sub("burst", "burst bubbles in the film"),
    sub("corner", "pits in a corner, fast deposit"),
    sub("castings", "on castings only", "only-castings"),
  ],
  craters: [sub("greasy", "greasy or shiny bottom", "residue-in-crater"), sub("dry", "clean round dimples")],
  inclusions: [
    sub("fibre", "fibre", "fibre-shape"),
    sub("colour-speck", "specks of another colour", "specks-other-colour"),
    sub("oven-dirt", "scale or soot of the oven", "oven-dirty"),
    sub("nib", "nibs of powder"),
    sub("grit", "blast grit or metal", "blast-dust-left"),
  ],
  "light-coverage": [
    sub("edge-thin", "edge thin", "only-edges"),
    sub("recess", "in recesses only", "only-recesses"),
    sub("far-face", "undersides and rear faces", "only-far-faces"),
    sub("stripes", "stripes between passes"),
  ],
  sags: [
    sub("edge-heavy", "edge heavy", "only-edges"),
    sub("recess", "heavy in a corner", "only-recesses"),
    sub("curtain", "runs and curtains"),
  ],
  "back-ionisation": [
    sub("starred", "starred pits", "texture-starred"),
    sub("arc-mark", "arc mark of the gun"),
    sub("recess", "in recesses only", "only-recesses"),
  ],
  "colour-shift": [
    sub("yellow", "yellow or brown", "yellow-brown"),
    sub("patchy", "patches"),
    sub("off", "even, off the panel"),
  ],
  "gloss-off": [sub("high", "too high"), sub("low", "too low"), sub("patchy", "patches")],
  "bare-marks": [
    sub("hang", "mark of the hook"),
    sub("rest", "mark of a support"),
    sub("finger", "shape of a finger or glove", "fingerprint-shape"),
    sub("knock", "knocked off before cure", "crisp-edge"),
  ],
  "coated-fit": [sub("thread", "thread"), sub("seat", "seat or bore"), sub("contact", "earth contact")],
  blistering: [sub("liquid", "liquid in them", "liquid-in-blister"), sub("dry", "dry")],
  "adhesion-loss": [
    sub("metal", "off the metal"),
    sub("coats", "between two coats", "breaks-between-coats"),
    sub("film", "within the film"),
  ],
};

/** A sub-kind of a defect; null where it has none of that name. */
export const subKindOf = (defect: string, id: string | null | undefined): SubKind | null =>
  subKinds[defect]?.find((s) => s.id === id) ?? null;
