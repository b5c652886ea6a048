"use client";
import {
  edgesM,
  type Face,
  firstSketch,
  type PartFeature,
  partFeatures,
  presetFor,
  type Substrate,
  substrates,
} from "@/core/plan";
import { type Quantity, quantities, type UnitSystem } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { usePreferences } from "../preferences-context";
import { featureName, substrateName } from "../words/plan";
import type { Mark } from "./marks-form";
import { type Sketch, SketchEditor } from "./sketch-editor";

/** As many as a rule or a scale gives. */
const DIGITS = 4;

export type KnownPart = {
  readonly id: string;
  readonly seen: string;
  readonly name: string;
  readonly substrate: Substrate;
  readonly features: readonly PartFeature[];
  readonly thickestMm: number;
  readonly measures: {
    readonly box: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };
    readonly thinnestMm: number;
    readonly massKg: number;
    readonly areaM2: number;
    readonly lapM: number;
    readonly edgeM: number;
    readonly assumed: readonly string[];
  } | null;
  readonly marks: readonly Mark[];
  readonly faces: readonly Face[];
};

/** A part: what it is, what it measures, and its sketch; kept as a new one or as a new version. */
export function PartForm({ known, save }: { known: KnownPart | null; save: Save }) {
  const { units } = usePreferences();
  const typed = (value: number | null, q: Quantity, own: UnitSystem) =>
    value === null ? "" : String(Number((own === "us" ? quantities[q].toUs(value) : value).toPrecision(DIGITS)));
  const m = known?.measures ?? null;
  const begun = {
    name: known?.name ?? "",
    substrate: (known?.substrate ?? "hot-rolled-steel") as string,
    features: [...(known?.features ?? [])] as string[],
    length: typed(m?.box.lengthMm ?? null, "distance", units),
    width: typed(m?.box.widthMm ?? null, "distance", units),
    height: typed(m?.box.heightMm ?? null, "distance", units),
    thinnest: typed(m?.thinnestMm ?? null, "size", units),
    thickest: typed(known?.thickestMm ?? null, "size", units),
    mass: typed(m?.massKg ?? null, "mass", units),
    area: typed(m?.areaM2 ?? null, "area", units),
    lap: String(m?.lapM ?? 0),
    edge: String(m?.edgeM ?? 0),
    reason: "",
    sketch: { faces: known?.faces ?? [], marks: known?.marks ?? [] } as Sketch,
  };
  const held = useEntryForm(`part ${known?.id ?? "new"}`, begun);
  const saving = useSave(save, held, {
    said: known ? "Kept as a new version of the part." : "Put in the library.",
    keyed: true,
  });
  const F = fieldsOf(held);
  const [sketch, setSketch] = held.field("sketch");
  const features = held.values.features as PartFeature[];
  const sides = [held.live("length", "distance"), held.live("width", "distance"), held.live("height", "distance")];
  const box = sides.every((s) => s !== null && s > 0)
    ? { lengthMm: sides[0] ?? 0, widthMm: sides[1] ?? 0, heightMm: sides[2] ?? 0 }
    : null;
  const described = box && { features, substrate: held.values.substrate as Substrate, box };
  const edges = described && edgesM(presetFor(described), described.box);
  return (
    <Entry
      held={held}
      id="part"
      sending={saving}
      button={known ? "Keep as a new version" : "Put it in the library"}
      primary
      className="mt-4 grid gap-4"
      begin={known ? ["reason"] : []}
      send={(read) => {
        // What was not touched stays exactly as it was, whatever its unit rounds it to.
        const size = (field: Parameters<typeof read.number>[0], was: number | undefined, quantity?: Quantity) =>
          was !== undefined && held.values[field] === begun[field] ? was : read.number(field, quantity);
        if (sketch.faces.length === 0) read.refuse(null, "It has no sketch yet. Draw one below: begin with a shape.");
        const { name, substrate, reason } = held.values;
        return saving.send({
          part: known?.id ?? null,
          seen: known?.seen ?? null,
          reason: known ? reason : reason || "First measured",
          data: {
            name,
            substrate,
            features,
            thickestMm: size("thickest", known?.thickestMm, "size"),
            measures: {
              box: {
                lengthMm: size("length", m?.box.lengthMm, "distance"),
                widthMm: size("width", m?.box.widthMm, "distance"),
                heightMm: size("height", m?.box.heightMm, "distance"),
              },
              thinnestMm: size("thinnest", m?.thinnestMm, "size"),
              massKg: size("mass", m?.massKg, "mass"),
              areaM2: size("area", m?.areaM2, "area"),
              lapM: size("lap", m?.lapM),
              edgeM: size("edge", m?.edgeM),
              assumed: [],
            },
            marks: sketch.marks,
            faces: sketch.faces,
          },
        });
      }}
    >
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)] gap-3 max-[700px]:grid-cols-1">
        <F.Words name="name" label="Part, as it is called" most={80} required />
        <F.Pick name="substrate" label="Metal" of={substrates.map((s) => [s, substrateName[s]] as const)} />
      </div>
      <div className="grid grid-cols-5 gap-3 max-[900px]:grid-cols-3 max-[560px]:grid-cols-2">
        <F.Num name="length" label="Length" quantity="distance" />
        <F.Num name="width" label="Width" quantity="distance" />
        <F.Num name="height" label="Height" quantity="distance" />
        <F.Num name="thinnest" label="Thinnest" quantity="size" />
        <F.Num name="thickest" label="Thickest" quantity="size" />
        <F.Num name="mass" label="Mass" quantity="mass" />
        <F.Num name="area" label="Area to coat" quantity="area" />
        <F.Num name="lap" label="Open laps, m" />
        <F.Num name="edge" label="Edges, m" />
        {edges !== null && held.live("edge") === 0 && (
          <button type="button" className="btn self-end" onClick={() => held.field("edge")[1](edges.toFixed(1))}>
            {edges.toFixed(1)} m by its box
          </button>
        )}
      </div>
      <F.Many name="features" label="It has" of={partFeatures.map((f) => [f, featureName[f]] as const)} />
      <h2 className="m-0">Sketch</h2>
      {sketch.faces.length === 0 && (
        <div>
          <p className="m-0 mb-2">
            {described
              ? "By what is said above it can be drawn at once; every corner and spot of it can be moved."
              : "Say its sizes above, and a first sketch is drawn by them; or begin with a shape."}
          </p>
          <div className="flex flex-wrap gap-2">
            {described && (
              <button
                type="button"
                className="btn pri"
                onClick={() => setSketch({ faces: firstSketch(described), marks: [] })}
              >
                Draw a first sketch
              </button>
            )}
            <button
              type="button"
              className="btn"
              onClick={() =>
                setSketch({
                  faces: firstSketch(
                    described ?? {
                      features,
                      substrate: "hot-rolled-steel",
                      box: { lengthMm: 400, widthMm: 300, heightMm: 20 },
                    },
                  ),
                  marks: [],
                })
              }
            >
              Begin with a plate
            </button>
          </div>
        </div>
      )}
      {sketch.faces.length > 0 && <SketchEditor sketch={sketch} change={setSketch} features={features} />}
      {known && <F.Words name="reason" label="Why it changes" most={300} required className="max-w-[640px]" />}
    </Entry>
  );
}
