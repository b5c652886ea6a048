"use client";
import { useEffect, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { CREEP_LEAST_POINTS, creepFromChip, creepFromScribe, creepResult, rustGrade, rustResult } from "@/core/field";
import { milToUm } from "@/core/units";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import type { CapturedEntry } from "../in-hand/device";
import type { FormPhoto, Keeper } from "../in-hand/keeper";
import { Verdict } from "../marks/verdict";
import { BeforeAfter } from "../photo/before-after";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { flakeBackName, flakeUnderName } from "../words/field-zones";
import type { AcceptedRead, Measured } from "./accepted";
import { FormPhotos } from "./form-photos";
import { PhotoMeasure } from "./photo-measure";

const scale = (from: number, to: number, none: string): readonly (readonly [string, string])[] => [
  ["", none],
  ...Array.from({ length: to - from + 1 }, (_, i): readonly [string, string] => [String(from + i), String(from + i)]),
];

/** The photo just taken, from the device, with that of an earlier visit. */
function Compared({
  keeper,
  id,
  before,
}: {
  keeper: Keeper;
  id: string;
  before: { readonly blob: Blob; readonly when: string };
}) {
  const [after, setAfter] = useState<Blob | null>(null);
  useEffect(() => {
    let gone = false;
    void keeper.picture(id).then((blob) => !gone && setAfter(blob));
    return () => {
      gone = true;
    };
  }, [keeper, id]);
  return after ? <BeforeAfter before={before.blob} after={after} when={before.when} /> : null;
}

const readCaption: Record<AcceptedRead["of"], string> = {
  rust: "Rust of the zone",
  flaking: "Flaking of the zone",
  creep: "Creep, with its scale",
  blisters: "Blisters, with their scale",
  chalk: "Cloth that was rubbed with",
};
type Visit = Extract<CapturedEntry, { readonly kind: "zone-visit" }>;
/** Whether nothing was said or read of a zone. */
const emptyVisit = (e: Visit): boolean =>
  Object.entries(e).every(
    ([field, value]) =>
      ["kind", "structure", "zone", "round"].includes(field) ||
      value === null ||
      value === "" ||
      (Array.isArray(value) && value.length === 0),
  );

/** One zone of a round, for one thumb: photo, what you see, what was measured, next; what is left empty was not looked at. */
export function CaptureForm({
  structure,
  zone,
  round,
  seamMm,
  keeper,
  before = null,
  next,
}: {
  structure: string;
  zone: string;
  round: string;
  /** All of a seam or edge, where its zone says it. */
  seamMm: number | null;
  keeper: Keeper;
  /** The zone's photo of an earlier visit, where it lies on the device, and its day. */
  before?: { readonly blob: Blob; readonly when: string } | null;
  /** On with the round. */
  next: () => void;
}) {
  const { units } = usePreferences();
  const us = units === "us";
  const name = `capture ${structure} ${zone} ${round}`;
  const held = useEntryForm(name, {
    sound: null as string | null,
    from: "chip" as string,
    scribe: us ? "0.02" : "0.5",
    widths: "",
    loose: "",
    rust: "",
    density: "",
    size: "3",
    perDm2: "",
    blisterMm: "",
    flaked: "",
    tape: "",
    seamRusted: "",
    seam: seamMm === null ? "" : String(seamMm),
    film: "",
    gloss: "",
    deg: "60",
    deltaE: "",
    chalk: "",
    deltaL: "",
    salt: "",
    profile: "",
    flakeBack: "",
    flakeUnder: "",
    flakeFilm: "",
    flakeBag: "",
    note: "",
    photos: [] as readonly FormPhoto[],
    front: [] as readonly FormPhoto[],
    back: [] as readonly FormPhoto[],
    reads: [] as readonly AcceptedRead[],
  });
  const [sending, setSending] = useState<{
    readonly busy: boolean;
    readonly message: { readonly good: boolean; readonly text: string } | null;
  }>({ busy: false, message: null });
  const F = fieldsOf(held);
  const [photos, setPhotos] = held.field("photos");
  const [front, setFront] = held.field("front");
  const [back, setBack] = held.field("back");
  const [reads, setReads] = held.field("reads");
  const { from, sound } = held.values;
  const widths = held.liveMany("widths", "creep");
  const scribe = held.live("scribe", "creep");
  const creep =
    widths && widths.length > 0
      ? from === "scribe"
        ? creepFromScribe(widths, scribe ?? 0)
        : creepFromChip(widths)
      : null;
  const share = held.live("rust");
  const rust = share === null ? null : rustGrade(share);
  /** A reading is taken over: its photo is kept, and its fields are filled. Null takes back what it filled. */
  const accept = async (of: AcceptedRead["of"], measured: Measured | null) => {
    const before = reads.find((r) => r.of === of);
    for (const [field, put] of Object.entries(before?.put ?? {}))
      if (String(held.values[field as keyof typeof held.values]) === put)
        (held.field(field as "rust")[1] as (text: string) => void)("");
    const others = reads.filter((r) => r.of !== of);
    if (!measured) {
      setReads(others);
      return null;
    }
    const photo = uuidv7();
    const kept = await keeper.photo(name, photo, measured.file);
    if (!kept.ok) return failureText(kept.failure);
    const { file: _, ...rest } = measured;
    for (const [field, put] of Object.entries(rest.put))
      (held.field(field as "rust")[1] as (text: string) => void)(put);
    setReads([...others, { ...rest, photo }]);
    return null;
  };
  return (
    <Entry
      held={held}
      id="capture"
      sending={sending}
      button="Record this zone"
      primary
      className="grid gap-3"
      send={async (read) => {
        const v = held.values;
        const one = (text: string) => (text === "" ? null : Number(text));
        const widthsMm = read.many("widths", "creep");
        const seamRustedMm = read.maybe("seamRusted");
        const glossGu = read.many("gloss");
        // What was typed over is the typist's: it was not read from the photo.
        const stand = reads.filter((r) =>
          Object.entries(r.put).every(([field, put]) => String(v[field as keyof typeof v]) === put),
        );
        const flakeFilm = read.maybe("flakeFilm");
        const entry = {
          kind: "zone-visit" as const,
          structure,
          zone,
          round,
          sound: sound === null ? null : sound === "sound",
          from: widthsMm.length > 0 ? (from as "chip") : null,
          scribeMm: widthsMm.length > 0 && from === "scribe" ? read.number("scribe", "creep") : null,
          widthsMm,
          looseMm: read.many("loose", "creep"),
          rustPercent: read.maybe("rust"),
          blisterDensity: one(v.density),
          blisterSize: one(v.density) ? Number(v.size) : null,
          blistersPerDm2: read.maybe("perDm2"),
          blisterMm: read.maybe("blisterMm"),
          flakedPercent: read.maybe("flaked"),
          tapeIso: one(v.tape),
          seamRustedMm,
          seamMm: seamRustedMm === null ? null : read.number("seam"),
          filmUm: read.many("film").map((f) => (us ? milToUm(f) : f)),
          glossGu,
          glossDeg: glossGu.length > 0 ? (Number(v.deg) as 60) : null,
          deltaE: read.maybe("deltaE"),
          chalk: one(v.chalk),
          chalkDeltaL: read.maybe("deltaL"),
          saltMgPerM2: read.maybe("salt"),
          profileUm: read.maybe("profile"),
          note: v.note,
          photos: stand.map(({ put: _, machineEach, ...r }) => ({ ...r, machineEach: [...machineEach] })),
          flake:
            v.flakeBack === ""
              ? null
              : {
                  back: v.flakeBack as "scale",
                  under: v.flakeUnder === "" ? null : (v.flakeUnder as "rust"),
                  filmUm: flakeFilm !== null && us ? milToUm(flakeFilm) : flakeFilm,
                  bag: v.flakeBag,
                  frontPhoto: front[0]?.id ?? null,
                  backPhoto: back[0]?.id ?? null,
                },
        };
        const empty = emptyVisit(entry);
        const taken = [
          ...photos,
          ...stand.map((r) => ({ id: r.photo, caption: readCaption[r.of] })),
          ...(v.flakeBack === "" ? [] : [...front, ...back]),
        ];
        if (empty && taken.length === 0) read.refuse("sound", "Say what you see, measure something, or take a photo.");
        setSending({ busy: true, message: null });
        const done = await keeper.record({ zone, entry: empty ? null : entry, photos: taken });
        setSending({ busy: false, message: done.ok ? null : { good: false, text: failureText(done.failure, units) } });
        if (done.ok) {
          held.done();
          next();
        }
        return done.ok;
      }}
    >
      <FormPhotos
        keeper={keeper}
        form={name}
        label="Take a photo"
        photos={photos}
        set={setPhotos}
        caption={`${zone}, as it was`}
      />
      {before && photos[0] && (
        <Fold summary={<>Beside the photo of {before.when}</>} summaryClassName="min-h-11">
          <Compared keeper={keeper} id={photos[0].id} before={before} />
        </Fold>
      )}
      <F.Ask
        name="sound"
        label="What you see"
        of={[
          ["sound", "Sound"],
          ["found", "Something is there"],
        ]}
      />
      <Fold summary={<>Measure on a photo</>} summaryClassName="min-h-11">
        <PhotoMeasure accept={accept} />
      </Fold>
      <div className="grid grid-cols-2 gap-3">
        <F.Num name="rust" label="Rusted, % of the zone" />
        <F.Num name="flaked" label="Flaked off, %" />
      </div>
      {rust?.ok && (
        <p className="m-0">
          <Verdict result={rustResult(rust.value)}>Ri {rust.value}</Verdict>
        </p>
      )}
      <F.Ask
        name="from"
        label="Creep, measured from"
        of={[
          ["chip", "a chip’s edge"],
          ["scribe", "a scribe"],
        ]}
      />
      <div className="grid grid-cols-[minmax(0,1fr)_110px] items-end gap-3">
        <F.Words
          name="widths"
          label={`Widths, ${us ? "in" : "mm"}, ${CREEP_LEAST_POINTS} or more`}
          most={400}
          placeholder={us ? "0.12 0.13 0.14" : "3.1 3.4 3.6"}
        />
        {from === "scribe" && <F.Num name="scribe" label="Scribe" />}
      </div>
      <F.Words name="loose" label={`Film gone at the same places, all across, ${us ? "in" : "mm"}`} most={400} />
      {creep &&
        (creep.ok ? (
          <p className="m-0">
            <Verdict result={creepResult(creep.value.rating)}>
              {withUnit(creep.value.creepMm, "creep", units)},{" "}
              {creep.value.rating === null
                ? `${CREEP_LEAST_POINTS - creep.value.n} more for a rating`
                : `rating ${creep.value.rating}`}
            </Verdict>
          </p>
        ) : (
          <p className="small m-0 text-out">{failureText(creep.error)}</p>
        ))}
      <Fold summary={<>Blisters, tape, seam</>} summaryClassName="min-h-11">
        <div className="grid grid-cols-2 gap-3">
          <F.Pick name="density" label="Blisters, how many" of={scale(0, 5, "not looked at")} />
          <F.Pick name="size" label="Blisters, how large" of={scale(2, 5, "–").slice(1)} />
          <F.Num name="perDm2" label="Counted, on a dm²" />
          <F.Num name="blisterMm" label="Across, mm" />
          <F.Pick name="tape" label="Tape on sound film" of={scale(0, 5, "not done")} />
          <F.Num name="seamRusted" label="Seam rusted, mm" />
          <F.Num name="seam" label="of, mm" />
        </div>
      </Fold>
      <Fold summary={<>Gloss, colour, chalk</>} summaryClassName="min-h-11">
        <div className="grid grid-cols-2 gap-3">
          <F.Words name="gloss" label="Gloss, GU" most={200} placeholder="41 43 42" />
          <F.Pick
            name="deg"
            label="at"
            of={[
              ["20", "20°"],
              ["60", "60°"],
              ["85", "85°"],
            ]}
          />
          <F.Num name="deltaE" label="Colour from the sheltered zone, ΔE" />
          <F.Pick name="chalk" label="Chalk on tape" of={scale(0, 5, "not looked at")} />
          <F.Num name="deltaL" label="Chalk on a cloth, ΔL*" />
        </div>
      </Fold>
      <Fold summary={<>Film, salt, bare metal</>} summaryClassName="min-h-11">
        <div className="grid grid-cols-2 gap-3">
          <F.Words name="film" label={`Film, ${us ? "mil" : "µm"}`} most={400} />
          <p className="col-span-2 m-0">
            A bare patch without rust: light it almost flat along the metal and photograph it; press replica tape on it
            and read the profile. Smooth says that it was never blasted.
          </p>
          <F.Num name="salt" label="Salt, mg/m²" />
          <F.Num name="profile" label="Profile of a bare patch, µm" />
        </div>
      </Fold>
      <Fold summary={<>A flake, lifted and turned over</>} summaryClassName="min-h-11">
        <div className="grid gap-3">
          <p className="m-0">
            Lift a loose flake with a blade, gloves on. What is on its back tells which layer let go: look in the light,
            and at the metal it came from. Keep it in a bag with its number.
          </p>
          <F.Pick
            name="flakeBack"
            label="On its back"
            of={[["", "no flake was lifted"], ...Object.entries(flakeBackName)]}
          />
          <F.Pick name="flakeUnder" label="Under it" of={[["", "not looked at"], ...Object.entries(flakeUnderName)]} />
          <div className="grid grid-cols-2 gap-3">
            <F.Num name="flakeFilm" label={`Its film, ${us ? "mil" : "µm"}`} />
            <F.Words name="flakeBag" label="Bag number" most={40} />
          </div>
          <FormPhotos
            keeper={keeper}
            form={name}
            label="Photo of its face"
            photos={front}
            set={(p) => setFront(p.slice(-1))}
            caption={`Flake from ${zone}, its face`}
          />
          <FormPhotos
            keeper={keeper}
            form={name}
            label="Photo of its back"
            photos={back}
            set={(p) => setBack(p.slice(-1))}
            caption={`Flake from ${zone}, its back`}
          />
        </div>
      </Fold>
      <F.Words name="note" label="Note" rows={2} most={800} />
    </Entry>
  );
}
