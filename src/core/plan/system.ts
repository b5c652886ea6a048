/** Resin families by the standing of their outer coat; primers are named apart. */
export const families = [
  "polyester",
  "polyester-tgic-free",
  "polyester-high-weathering",
  "polyurethane",
  "fluoropolymer",
  "epoxy",
  "hybrid",
  "acrylic",
  "silicone",
] as const;
export type Family = (typeof families)[number];
export const preparations = ["blast", "sand", "wipe"] as const;
export const pretreatments = ["none", "wash", "iron-phosphate", "zirconium"] as const;
export const primers = ["none", "zinc", "epoxy"] as const;
/** How the coats of a system are cured. A single coat has one cure. */
export const curings = ["one-cure", "primer-gelled", "dry-on-dry", "two-full-cures"] as const;

export type CoatingSystem = {
  readonly preparation: (typeof preparations)[number];
  readonly breakEdges: boolean;
  readonly outgas: boolean;
  readonly sealSeams: boolean;
  readonly pretreatment: (typeof pretreatments)[number];
  readonly primer: (typeof primers)[number];
  readonly primerUm: readonly [number, number] | null;
  readonly family: Family;
  readonly coats: number;
  /** Film of one top coat, µm, least and most. */
  readonly topUm: readonly [number, number];
  readonly curing: (typeof curings)[number];
};
