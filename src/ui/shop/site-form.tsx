"use client";
import { type SiteLimitName, siteLimitNames, siteLimits, usualBlastProfile } from "@/core/site";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { ShiftRows, type ShiftText } from "./shift-rows";

export type SiteData = {
  readonly name: string;
  readonly timeZone: string;
  readonly shifts: readonly { readonly name: string; readonly from: string }[];
  readonly workDays: readonly number[];
  readonly cureDecidedBy: "index" | "hold";
  readonly blastProfileUm: readonly [number, number];
  readonly warmStorageCounts: boolean;
  readonly gaugeSetOnSmooth: boolean;
} & Readonly<Record<SiteLimitName, number>>;

/** The shop: what it is called, when it works, and the limits it goes by; a change is a new version from now on. */
export function SiteForm({
  seen,
  site,
  zones,
  save,
}: {
  seen: string;
  site: SiteData;
  zones: readonly string[];
  save: Save;
}) {
  const held = useEntryForm("shop", {
    name: site.name,
    timeZone: site.timeZone,
    shifts: site.shifts.map((s, key) => ({ ...s, key })) as readonly ShiftText[],
    workDays: site.workDays,
    cure: site.cureDecidedBy as "index" | "hold",
    from: String(site.blastProfileUm[0]),
    to: String(site.blastProfileUm[1]),
    warm: site.warmStorageCounts,
    smooth: site.gaugeSetOnSmooth,
    ...(Object.fromEntries(siteLimitNames.map((n) => [n, String(site[n])])) as Record<SiteLimitName, string>),
    reason: "",
  });
  const saving = useSave(save, held, { said: "Kept, from now on.", about: "shop" });
  const F = fieldsOf(held);
  const [shifts, setShifts] = held.field("shifts");
  const [workDays, setWorkDays] = held.field("workDays");
  return (
    <Entry
      held={held}
      id="shop"
      sending={saving}
      button="Keep it"
      primary
      className="mt-3 grid max-w-[860px] gap-6"
      begin={["reason"]}
      send={({ number }) => {
        const { name, timeZone, cure, warm, smooth, reason } = held.values;
        return saving.send({
          seen,
          reason,
          data: {
            name,
            timeZone,
            shifts: shifts.map((s) => ({ name: s.name, from: s.from })),
            workDays,
            cureDecidedBy: cure,
            blastProfileUm: [number("from"), number("to")],
            warmStorageCounts: warm,
            gaugeSetOnSmooth: smooth,
            ...Object.fromEntries(siteLimitNames.map((n) => [n, number(n)])),
          },
        });
      }}
    >
      <section className="grid gap-3">
        <h2>What it is called, and when it works</h2>
        <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
          <F.Words name="name" label="Name, as on its certificates" most={80} required />
          <F.Pick name="timeZone" label="Time zone" of={zones.map((z) => [z, z.replaceAll("_", " ")])} />
        </div>
        <ShiftRows id="shop" shifts={shifts} setShifts={setShifts} workDays={workDays} setWorkDays={setWorkDays} />
      </section>
      <section className="ruled grid gap-3">
        <h2>What it goes by, where nothing else is asked</h2>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3">
          <F.Pick
            name="cure"
            label="Cure is judged by"
            of={[
              ["index", "cure index"],
              ["hold", "hold of the metal"],
            ]}
          />
          <F.Num
            name="from"
            label="Blast profile from, µm"
            hint={
              <span>
                usual {usualBlastProfile.um[0]}: {usualBlastProfile.source}
              </span>
            }
          />
          <F.Num name="to" label="Blast profile to, µm" hint={<span>usual {usualBlastProfile.um[1]}</span>} />
          {siteLimitNames.map((n) => {
            const { label, unit, usual, source } = siteLimits[n];
            return (
              <F.Num
                key={n}
                name={n}
                label={unit ? `${label}, ${unit}` : label}
                hint={
                  <span>
                    usual {usual}: {source}
                  </span>
                }
              />
            );
          })}
        </div>
        <F.Yes name="warm">Warm days in the powder store count more than the calendar’s (a rule of thumb)</F.Yes>
        <F.Yes name="smooth">Film gauges are set on smooth steel: a blast profile is taken off what they read</F.Yes>
      </section>
      <F.Words name="reason" label="Why it changes" most={300} required className="max-w-[560px]" />
    </Entry>
  );
}
