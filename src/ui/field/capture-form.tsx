"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { CREEP_LEAST_POINTS, creepFromChip, creepFromScribe, creepResult, rustGrade, rustResult } from "@/core/field";
import { milToUm } from "@/core/units";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { type AcceptedRust, RustFromPhoto } from "./rust-photo";

type Attach = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;

const scale = (from: number, to: number, none: string): readonly (readonly [string, string])[] => [
  ["", none],
  ...Array.from({ length: to - from + 1 }, (_, i): readonly [string, string] => [String(from + i), String(from + i)]),
];

/** One zone of a round, for one thumb: sound or not, then what was measured; what is left empty was not looked at. */
export function CaptureForm({
  structure,
  zone,
  round,
  seamMm,
  next,
  attach,
}: {
  structure: string;
  zone: string;
  round: string;
  /** All of a seam or edge, where its zone says it. */
  seamMm: number | null;
  /** Where the round goes on. */
  next: string;
  attach: Attach;
}) {
  const { units } = usePreferences();
  const router = useRouter();
  const us = units === "us";
  const held = useEntryForm(`capture ${structure} ${zone} ${round}`, {
    sound: null as string | null,
    from: "chip" as string,
    scribe: us ? "0.02" : "0.5",
    widths: "",
    loose: "",
    rust: "",
    density: "",
    size: "3",
    flaked: "",
    tape: "",
    seamRusted: "",
    seam: seamMm === null ? "" : String(seamMm),
    film: "",
    gloss: "",
    deg: "60",
    deltaE: "",
    chalk: "",
    salt: "",
    profile: "",
    note: "",
  });
  const recorder = useRecorder(held);
  const [rustPhoto, setRustPhoto] = useState<(AcceptedRust & { readonly id: string }) | null>(null);
  const [sending, setSending] = useState(false);
  const [, setRust] = held.field("rust");
  const F = fieldsOf(held);
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
  return (
    <Entry
      held={held}
      id="capture"
      sending={{ busy: recorder.busy || sending, message: recorder.message }}
      button="Record this zone"
      primary
      className="grid gap-3"
      begin={["sound", "widths", "rust", "note"]}
      send={async (read) => {
        const v = held.values;
        const one = (text: string) => (text === "" ? null : Number(text));
        const widthsMm = read.many("widths", "creep");
        const seamRustedMm = read.maybe("seamRusted");
        const glossGu = read.many("gloss");
        // A share that was typed over is the typist's; the photo goes first, since what was read of it names it.
        const photo = rustPhoto && v.rust === rustPhoto.percent.toFixed(2) ? rustPhoto : null;
        if (photo) {
          setSending(true);
          const data = new FormData();
          for (const [name, value] of Object.entries({ id: photo.id, structure, zone, caption: "Rust of the zone" }))
            data.set(name, value);
          data.set("photo", photo.file);
          const kept = await attach(data).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
          setSending(false);
          if (!kept.ok) return read.refuse(null, failureText(kept.failure ?? { kind: "not-saved" }));
        }
        const sent = await recorder.send({
          kind: "zone-visit",
          structure,
          zone,
          round,
          sound: sound === null ? null : sound === "sound",
          from: widthsMm.length > 0 ? (from as "chip") : null,
          scribeMm: widthsMm.length > 0 && from === "scribe" ? read.number("scribe", "creep") : null,
          widthsMm,
          looseMm: read.many("loose", "creep"),
          rustPercent: read.maybe("rust"),
          rustPhoto: photo?.id ?? null,
          rustMachinePercent: photo?.machinePercent ?? null,
          blisterDensity: one(v.density),
          blisterSize: one(v.density) ? Number(v.size) : null,
          flakedPercent: read.maybe("flaked"),
          tapeIso: one(v.tape),
          seamRustedMm,
          seamMm: seamRustedMm === null ? null : read.number("seam"),
          filmUm: read.many("film").map((f) => (us ? milToUm(f) : f)),
          glossGu,
          glossDeg: glossGu.length > 0 ? (Number(v.deg) as 60) : null,
          deltaE: read.maybe("deltaE"),
          chalk: one(v.chalk),
          saltMgPerM2: read.maybe("salt"),
          profileUm: read.maybe("profile"),
          note: v.note,
        });
        if (sent) router.push(next);
        return sent;
      }}
    >
      <F.Ask
        name="sound"
        label="What you see"
        of={[
          ["sound", "Sound"],
          ["found", "Something is there"],
        ]}
      />
      <div className="grid grid-cols-2 gap-3">
        <F.Num name="rust" label="Rusted, % of the zone" />
        <F.Num name="flaked" label="Flaked off, %" />
      </div>
      {rust?.ok && (
        <p className="m-0">
          <Verdict result={rustResult(rust.value)}>Ri {rust.value}</Verdict>
        </p>
      )}
      <Fold summary={<>Rust from a photo</>} summaryClassName="min-h-11">
        <RustFromPhoto
          accept={(r) => {
            // What is brushed anew is taken over anew: until then no share stands.
            if (!r && rustPhoto && held.values.rust === rustPhoto.percent.toFixed(2)) setRust("");
            setRustPhoto(r && { ...r, id: uuidv7() });
            if (r) setRust(r.percent.toFixed(2));
          }}
        />
      </Fold>
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
          <F.Pick name="tape" label="Tape on sound film" of={scale(0, 5, "not done")} />
          <F.Words name="loose" label={`Loose beside it, ${us ? "in" : "mm"}`} most={400} />
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
        </div>
      </Fold>
      <Fold summary={<>Film, salt, bare metal</>} summaryClassName="min-h-11">
        <div className="grid grid-cols-2 gap-3">
          <F.Words name="film" label={`Film, ${us ? "mil" : "µm"}`} most={400} />
          <F.Num name="salt" label="Salt, mg/m²" />
          <F.Num name="profile" label="Profile of a bare patch, µm" />
        </div>
      </Fold>
      <F.Words name="note" label="Note" rows={2} most={800} />
    </Entry>
  );
}
