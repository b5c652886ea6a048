/** Tests that are walked through step by step. */
export const guidedTests = [
  "cross-cut",
  "x-cut",
  "solvent-rub",
  "pencil-hardness",
  "impact",
  "bend",
  "gloss",
  "colour",
  "smoothness",
  "holidays",
  "pull-off",
] as const;
export type GuidedTest = (typeof guidedTests)[number];
export type TestStep = {
  readonly say: string;
  /** A time that it takes, s, counted down beside it. */
  readonly seconds?: number;
};
export type TestGuide = {
  readonly steps: readonly TestStep[];
  readonly cautions: readonly string[];
  /** The standard that says it in full. */
  readonly after: string;
};

const sharp = "A blade is sharp: cut away from the hand, blade in its sheath when it lies.";
const solvent = "Solvent burns and harms skin and lungs: gloves, fresh air, no flame, rags into the closed bin.";

/**
 * How each test is done, in steps that fit under the number that is asked for. `spacingMm` and `cuts` are of the lattice for
 * this film. Sources: the standards named; what they leave open is told as the usual way.
 */
export function testGuide(
  test: GuidedTest,
  lattice: { readonly spacingMm: number; readonly cuts: number } = { spacingMm: 2, cuts: 6 },
): TestGuide {
  switch (test) {
    case "cross-cut":
      return {
        after: "ISO 2409, ASTM D3359 B",
        steps: [
          {
            say: `Cut ${lattice.cuts} lines ${lattice.spacingMm} mm apart through to the metal, in one even stroke each, then ${lattice.cuts} across them.`,
          },
          { say: "Brush the lattice lightly along both diagonals; see that bright metal shows in every cut." },
          { say: "Lay the tape over it, rub it down until its colour is even, and wait.", seconds: 60 },
          { say: "Pull the tape off steadily at about 60°, within a second." },
          { say: "Under a glass, mark each square that came away, or photograph it." },
        ],
        cautions: [sharp],
      };
    case "x-cut":
      return {
        after: "ASTM D3359 A, ISO 16276-2",
        steps: [
          { say: "Cut two lines of about 40 mm through to the metal that cross at 30 to 45°." },
          { say: "See that bright metal shows along both." },
          { say: "Lay the tape over the crossing, rub it down, and wait.", seconds: 60 },
          { say: "Pull the tape off back upon itself, steadily." },
          { say: "Measure how wide the film came off to one side of a cut." },
        ],
        cautions: [sharp],
      };
    case "solvent-rub":
      return {
        after: "ASTM D5402, ISO 13523-11",
        steps: [
          { say: "Wipe the place clean; wrap the pad in cotton and wet it with the solvent the powder’s sheet names." },
          {
            say: "Rub to and fro over about 100 mm, one double rub a second, with the weight of the hand; wet again before it dries.",
            seconds: 50,
          },
          { say: "Let it dry, then hold it against the known-cured panel: dulled, softened, through?" },
          { say: "Look at the cloth: colour on it says more than the film." },
        ],
        cautions: [solvent],
      };
    case "pencil-hardness":
      return {
        after: "ISO 15184, ASTM D3363",
        steps: [
          { say: "Square the lead flat on fine paper before every stroke." },
          { say: "Push it away at 45° over 6 mm or more, beginning with the hardest." },
          { say: "Go softer until one leaves no mark that stays: that is the hardness." },
        ],
        cautions: [],
      };
    case "impact":
      return {
        after: "ISO 6272-1, ASTM D2794",
        steps: [
          { say: "Lay the panel flat on the die, film up for a direct blow, down for a reverse one." },
          { say: "Drop the weight from the height of the energy; read off kg·cm." },
          { say: "Look at the dent under a glass for cracks; record every blow, not only the best." },
        ],
        cautions: ["A falling weight: fingers clear of the tube, eye protection on."],
      };
    case "bend":
      return {
        after: "ISO 1519, ISO 6860",
        steps: [
          { say: "Put the panel in film outward, and bend it over the mandrel in one to two seconds." },
          { say: "Look along the bend under a glass for cracks; the smallest mandrel without one counts." },
        ],
        cautions: ["The lever swings: hands clear of it."],
      };
    case "gloss":
      return {
        after: "ISO 2813",
        steps: [
          { say: "Check the meter on its own tile." },
          { say: "Wipe the place clean and dry. Read at three places or more, on flat film only." },
          { say: "Over 70 GU at 60° read at 20° as well; under 10 GU at 85°." },
        ],
        cautions: [],
      };
    case "colour":
      return {
        after: "ISO/CIE 11664-6",
        steps: [
          { say: "Check the meter on its white tile; the piece is as cool as the panel." },
          { say: "Read the piece where it is flat; the difference is taken from the standard panel of this powder." },
          { say: "Photograph it beside the chip, both in one light." },
        ],
        cautions: [],
      };
    case "smoothness":
      return {
        after: "panels 1 (coarse) to 10 (smooth)",
        steps: [
          { say: "Hold the panels beside the piece under a straight lamp." },
          { say: "Compare how broken the lamp’s edge is; name the panel it matches." },
        ],
        cautions: [],
      };
    case "holidays":
      return {
        after: "ASTM D5162, ISO 29601",
        steps: [
          { say: "Earth the piece; under 500 µm take the wet sponge, above it the spark." },
          { say: "Set the voltage by the film, no higher." },
          { say: "Go over every face at an even pace; mark and count each place that sounds." },
        ],
        cautions: [
          "High voltage: the piece earthed, nobody else touching it, no flammable vapour, pacemakers kept away.",
        ],
      };
    case "pull-off":
      return {
        after: "ISO 4624, ASTM D4541",
        steps: [
          { say: "Roughen and clean film and dolly; glue, and let the glue set as its maker says." },
          { say: "Cut round the dolly where the standard asks for it." },
          { say: "Pull square and evenly, to break within a minute and a half.", seconds: 90 },
          { say: "Look at both sides: off the metal, within the film, at the glue, in shares that add to 100 %." },
        ],
        cautions: ["Glue and its hardener harm skin. A dolly flies off: eye protection on."],
      };
  }
}
