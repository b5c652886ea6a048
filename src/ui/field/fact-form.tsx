"use client";
import { useState } from "react";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { protectionName } from "../words/plan";

const grades = [
  ["by-procedure", "by papers"],
  ["assumed", "as told"],
  ["unknown", "a guess"],
] as const;
export type KnownFact = {
  readonly told_year: number | null;
  readonly told_coater: string | null;
  readonly told_system: string | null;
  readonly told_protection: string | null;
  readonly road_m: number | null;
  readonly salt_m: number | null;
  readonly water_m: number | null;
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly promised_years: number | null;
} | null;

/** What is told of a structure: its coating where that is not from here, what wears it, where it stands, what was promised. */
export function FactForm({ structure, known, ours }: { structure: string; known: KnownFact; ours: boolean }) {
  const text = (n: number | null | undefined) => (n == null ? "" : String(n));
  const held = useEntryForm(`facts ${structure}`, {
    year: text(known?.told_year),
    yearGrade: "assumed" as string,
    coater: known?.told_coater ?? "",
    coaterGrade: "assumed" as string,
    system: known?.told_system ?? "",
    systemGrade: "assumed" as string,
    protection: known?.told_protection ?? "",
    road: text(known?.road_m),
    salt: text(known?.salt_m),
    water: text(known?.water_m),
    latitude: text(known?.latitude),
    longitude: text(known?.longitude),
    promised: text(known?.promised_years),
    note: "",
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [, setLatitude] = held.field("latitude");
  const [, setLongitude] = held.field("longitude");
  const [where, setWhere] = useState("");
  const here = () => {
    setWhere("Asking the device …");
    navigator.geolocation?.getCurrentPosition(
      ({ coords }) => {
        setLatitude(coords.latitude.toFixed(6));
        setLongitude(coords.longitude.toFixed(6));
        setWhere(`Within about ${Math.round(coords.accuracy)} m.`);
      },
      () => setWhere("The device gives no position: type it, or leave it out."),
      { enableHighAccuracy: true, timeout: 15_000 },
    );
    if (!navigator.geolocation) setWhere("The device gives no position: type it, or leave it out.");
  };
  const told = (name: "year" | "coater" | "system") => (
    <F.Pick name={`${name}Grade`} label="known" of={grades} className="w-[130px]" />
  );
  return (
    <Fold summary={<>What is told of it</>} summaryClassName="min-h-11">
      <Entry
        held={held}
        id="facts"
        sending={recorder}
        button="Record what is told"
        className="grid max-w-[640px] gap-3"
        begin={["note"]}
        send={(read) => {
          const { values } = held;
          const grade = (g: string) => g as (typeof grades)[number][0];
          return recorder.send({
            kind: "structure-fact",
            structure,
            toldYear: read.maybe("year"),
            toldYearGrade: grade(values.yearGrade),
            toldCoater: values.coater,
            toldCoaterGrade: grade(values.coaterGrade),
            toldSystem: values.system,
            toldSystemGrade: grade(values.systemGrade),
            toldProtection: values.protection === "" ? null : (values.protection as "primed"),
            roadM: read.maybe("road"),
            saltM: read.maybe("salt"),
            waterM: read.maybe("water"),
            latitude: read.maybe("latitude"),
            longitude: read.maybe("longitude"),
            promisedYears: read.maybe("promised"),
            note: values.note,
          });
        }}
      >
        {!ours && (
          <>
            <div className="flex flex-wrap items-end gap-3">
              <F.Num name="year" label="Coated in the year" className="w-[150px]" />
              {told("year")}
            </div>
            <div className="flex flex-wrap items-end gap-3">
              <F.Words name="coater" label="By whom" most={80} className="min-w-[220px] flex-1" />
              {told("coater")}
            </div>
            <div className="flex flex-wrap items-end gap-3">
              <F.Words name="system" label="With what" most={120} className="min-w-[220px] flex-1" />
              {told("system")}
            </div>
            <F.Pick
              name="protection"
              label="What was under the film"
              of={[["", "nobody knows"], ...Object.entries(protectionName)]}
              className="max-w-[320px]"
            />
          </>
        )}
        <div className="flex flex-wrap gap-3">
          <F.Num name="road" label="To a salted road, m" className="w-[160px]" />
          <F.Num name="salt" label="To salt water, m" className="w-[150px]" />
          <F.Num name="water" label="To standing water, m" className="w-[170px]" />
          <F.Num name="promised" label="Promised, years" className="w-[140px]" />
        </div>
        <div className="flex flex-wrap items-end gap-3">
          <F.Num name="latitude" label="Latitude, °" className="w-[140px]" />
          <F.Num name="longitude" label="Longitude, °" className="w-[140px]" />
          <button type="button" className="btn" onClick={here}>
            Where I stand
          </button>
          <output className="small soft">{where}</output>
        </div>
        <F.Words name="note" label="Note" most={400} />
      </Entry>
    </Fold>
  );
}
