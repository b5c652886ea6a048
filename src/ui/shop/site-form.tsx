"use client";
import { type SiteLimitName, siteLimitNames, siteLimits, usualBlastProfile } from "@/core/site";
import { fieldsOf } from "../fields/in-form";
import { plainly, typed } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { ShiftRows, type ShiftText } from "./shift-rows";
import { markNames, orderNames, unitNames } from "./written-names";

export type SiteData = {
  readonly name: string;
  readonly timeZone: string;
  readonly shifts: readonly { readonly name: string; readonly from: string }[];
  readonly workDays: readonly number[];
  readonly cureDecidedBy: "index" | "hold";
  readonly adhesionScale: "iso" | "astm";
  readonly blastProfileUm: readonly [number, number];
  readonly units: "metric" | "us";
  readonly decimalMark: "." | "," | null;
  readonly dateOrder: "dmy" | "mdy" | "ymd" | null;
  readonly workStartsAt: string;
  readonly bareLimits: readonly { readonly upToHumidityPercent: number; readonly hours: number }[];
  readonly gaugeTolerance: { readonly um: number; readonly percent: number };
  readonly warmStorageCounts: boolean;
  readonly gaugeSetOnSmooth: boolean;
} & Readonly<Record<SiteLimitName, number>>;

/** Lines of a humidity and hours. */
function bareLimitsIn(text: string, wrong: (line: string) => never) {
  return text
    .split("\n")
    .filter((line) => line.trim() !== "")
    .map((line) => {
      const [upTo, hours, ...more] = line
        .split(/[\s;:%h]+/)
        .filter((w) => w !== "")
        .map(parseTyped);
      return upTo?.ok && hours?.ok && more.length === 0
        ? { upToHumidityPercent: upTo.value, hours: hours.value }
        : wrong(line);
    });
}

/** The shop: what it is called, when it works, and the limits it goes by; a change is a new version from now on. */
export function SiteForm({
  seen,
  site,
  zones,
  changed,
  save,
}: {
  seen: string;
  site: SiteData;
  zones: readonly string[];
  /** Who set which figure last, as it is said. */
  changed: Readonly<Record<string, string>>;
  save: Save;
}) {
  const { units } = usePreferences();
  const asTyped = (n: SiteLimitName) => {
    const { quantity } = siteLimits[n];
    return quantity && units === "us" ? typed(site[n], quantity, units) : String(site[n]);
  };
  const begun = Object.fromEntries(siteLimitNames.map((n) => [n, asTyped(n)])) as Record<SiteLimitName, string>;
  const held = useEntryForm("shop", {
    units: site.units as string,
    mark: site.decimalMark ?? "",
    order: (site.dateOrder ?? "") as string,
    workStartsAt: site.workStartsAt,
    bare: site.bareLimits.map((b) => `${b.upToHumidityPercent} ${b.hours}`).join("\n"),
    gaugeUm: String(site.gaugeTolerance.um),
    gaugePercent: String(site.gaugeTolerance.percent),
    name: site.name,
    timeZone: site.timeZone,
    shifts: site.shifts.map((s, key) => ({ ...s, key })) as readonly ShiftText[],
    workDays: site.workDays,
    scale: site.adhesionScale as "iso" | "astm",
    cure: site.cureDecidedBy as "index" | "hold",
    from: String(site.blastProfileUm[0]),
    to: String(site.blastProfileUm[1]),
    warm: site.warmStorageCounts,
    smooth: site.gaugeSetOnSmooth,
    ...begun,
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
      send={({ number, as, refuse }) => {
        const { name, timeZone, cure, warm, smooth, reason, mark, order, workStartsAt } = held.values;
        return saving.send({
          seen,
          reason,
          data: {
            name,
            timeZone,
            shifts: shifts.map((s) => ({ name: s.name, from: s.from })),
            workDays,
            cureDecidedBy: cure,
            adhesionScale: held.values.scale,
            blastProfileUm: [number("from"), number("to")],
            warmStorageCounts: warm,
            gaugeSetOnSmooth: smooth,
            units: held.values.units,
            decimalMark: mark === "" ? null : mark,
            dateOrder: order === "" ? null : order,
            workStartsAt,
            gaugeTolerance: { um: number("gaugeUm"), percent: number("gaugePercent") },
            bareLimits: as("bare", (text) =>
              bareLimitsIn(text, (line) => refuse("bare", `“${line}” is not a humidity and hours. Type them as 65 4.`)),
            ),
            // What was not touched stays exactly as it was.
            ...Object.fromEntries(
              siteLimitNames.map((n) => [
                n,
                held.values[n] === begun[n] ? site[n] : number(n, siteLimits[n].quantity ?? undefined),
              ]),
            ),
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
        <div className="grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
          <F.Pick name="units" label="Units, for who chose none" of={unitNames} />
          <F.Pick name="mark" label="Decimals are written" of={markNames} />
          <F.Pick name="order" label="Dates in files, where none tells" of={orderNames} />
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
          <F.Pick
            name="scale"
            label="Adhesion is cut and graded after"
            of={[
              ["iso", "ISO 2409, 0 best"],
              ["astm", "ASTM D3359, 5 best"],
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
            const { label, unit, usual, source, quantity } = siteLimits[n];
            return (
              <F.Num
                key={n}
                name={n}
                label={unit && !quantity ? `${label}, ${unit}` : label}
                {...(quantity ? { quantity } : {})}
                hint={
                  <span>
                    usual {quantity ? plainly(usual, quantity, units) : usual}: {source}
                    {changed[n] && <b className="block font-normal text-ink">{changed[n]}</b>}
                  </span>
                }
              />
            );
          })}
        </div>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3">
          <F.Num
            name="gaugeUm"
            label="Film gauge may be off by, µm"
            hint={
              <span>
                usual 1: its maker’s sheet{" "}
                {changed.gaugeTolerance && <b className="block font-normal text-ink">{changed.gaugeTolerance}</b>}
              </span>
            }
          />
          <F.Num name="gaugePercent" label="and by, % of the reading" hint={<span>usual 2: its maker’s sheet</span>} />
          <F.Words name="workStartsAt" label="The line begins at" most={5} required />
        </div>
        <F.Yes name="warm">Warm days in the powder store count more than the calendar’s (a rule of thumb)</F.Yes>
        <F.Yes name="smooth">Film gauges are set on smooth steel: a blast profile is taken off what they read</F.Yes>
      </section>
      <F.Words name="reason" label="Why it changes" most={300} required className="max-w-[560px]" />
    </Entry>
  );
}
