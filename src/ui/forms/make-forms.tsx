"use client";
import { quantities } from "@/core/units";
import { usePreferences } from "../preferences-context";
import { Choose, Field, MakeForm } from "./make-form";

type Make = Parameters<typeof MakeForm>[0]["make"];
type Option = { readonly id: string; readonly label: string };
const exposures = ["weather", "sun", "salt", "standing-water", "knocks", "indoor"] as const;
const stages = ["blast", "clean", "conversion", "rinse", "dry-off", "prebake", "booth", "oven"];

function Exposure() {
  return (
    <fieldset className="m-0 flex flex-wrap gap-x-5 border-0 p-0">
      <legend className="small soft">Where it lives</legend>
      {exposures.map((e) => (
        <label key={e} className="flex min-h-11 items-center gap-2">
          <input type="checkbox" name="exposure" value={e} className="size-5" />
          {e.replaceAll("-", " ")}
        </label>
      ))}
    </fieldset>
  );
}

/** A job with its requirement: film range and rule, adhesion, how cure is judged, and what was offered. */
export function JobForm({
  customers,
  parts,
  powders,
  make,
}: {
  customers: readonly Option[];
  parts: readonly Option[];
  powders: readonly Option[];
  make: Make;
}) {
  const { units } = usePreferences();
  const unit = quantities.thickness[units];
  const um = (text: FormDataEntryValue | null) =>
    text === null || text === "" ? null : units === "us" ? quantities.thickness.fromUs(Number(text)) : Number(text);
  const read = (f: FormData) => {
    const least = um(f.get("min"));
    const offered = String(f.get("offered") ?? "").trim();
    return {
      number: f.get("number"),
      customer: f.get("customer"),
      part: f.get("part"),
      powder: f.get("powder"),
      dueOn: f.get("due") || null,
      requirement: {
        film:
          f.get("rule") === "nominal"
            ? { rule: "nominal", nominalUm: least, maxUm: um(f.get("max")) }
            : { rule: "spot-area", minUm: least, maxUm: um(f.get("max")), level: Number(f.get("level")) },
        adhesionWorstIso: Number(f.get("adhesion")),
        cureDecidedBy: f.get("cure"),
      },
      plan: {
        stages,
        primer: f.get("primer") === "on",
        exposure: f.getAll("exposure"),
        offered: offered
          ? [
              {
                what: offered,
                pricePercent: null,
                taken: f.get("taken") === "yes",
                by: "the customer",
                on: new Date().toISOString().slice(0, 10),
                risk: String(f.get("risk") ?? "") || "none named",
              },
            ]
          : [],
      },
    };
  };
  return (
    <MakeForm title="Take a job in" button="Record the job" make={make} read={read}>
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <Field name="number" label="Job number" required maxLength={20} />
        <Field name="due" label="Due" type="date" />
        <Choose name="customer" label="Customer" options={customers} />
        <Choose name="part" label="Part" options={parts} />
        <Choose name="powder" label="Powder" options={powders} />
        <label className="flex min-h-11 items-center gap-2 self-end">
          <input type="checkbox" name="primer" className="size-5" /> primer under it
        </label>
        <Choose
          name="rule"
          label="Film rule"
          options={[
            { id: "spot-area", label: "spot and area" },
            { id: "nominal", label: "nominal" },
          ]}
        />
        <Choose
          name="level"
          label="Restriction level (spot and area)"
          options={[3, 1, 2, 4, 5].map((n) => ({ id: String(n), label: String(n) }))}
        />
        <Field name="min" label={`Film, least or nominal, ${unit}`} type="number" step="any" required />
        <Field name="max" label={`Film, most, ${unit}`} type="number" step="any" />
        <Choose
          name="adhesion"
          label="Cross-cut, worst grade allowed"
          options={[1, 0, 2].map((n) => ({ id: String(n), label: String(n) }))}
        />
        <Choose
          name="cure"
          label="Cure is judged by"
          options={[
            { id: "index", label: "cure index" },
            { id: "hold", label: "hold at metal temperature" },
          ]}
        />
      </div>
      <Exposure />
      <div className="grid grid-cols-[minmax(0,1fr)_120px_minmax(0,1fr)] gap-3 max-[560px]:grid-cols-1">
        <Field name="offered" label="Offered beyond it (primer, seam seal …)" maxLength={120} />
        <Choose
          name="taken"
          label="Answer"
          options={[
            { id: "no", label: "declined" },
            { id: "yes", label: "taken" },
          ]}
        />
        <Field name="risk" label="Risk, in plain words" maxLength={200} />
      </div>
    </MakeForm>
  );
}

export function RackForm({ job, make }: { job: string; make: Make }) {
  return (
    <MakeForm
      title="Hang a rack"
      button="Record the rack"
      make={make}
      read={(f) => ({ job, number: f.get("rack"), pieces: Number(f.get("pieces")) })}
    >
      <div className="grid grid-cols-2 gap-3">
        <Field name="rack" label="Number on its tag" required maxLength={20} />
        <Field name="pieces" label="Pieces" type="number" min={1} max={500} defaultValue={1} required />
      </div>
    </MakeForm>
  );
}

export function StructureForm({ make }: { make: Make }) {
  return (
    <MakeForm
      title="Put a structure on record"
      button="Record the structure"
      make={make}
      read={(f) => ({
        code: f.get("code"),
        name: f.get("name"),
        site: f.get("site"),
        rack: f.get("rack"),
        place: f.get("place"),
        putUpOn: f.get("putup") || null,
        exposure: f.getAll("exposure"),
      })}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <Field name="code" label="Short name (letters, digits, dashes)" required maxLength={24} placeholder="JETTY-B" />
        <Field name="name" label="Name" required maxLength={80} />
        <Field name="site" label="Site" required maxLength={80} />
        <Field name="rack" label="Made of the pieces of rack" required maxLength={20} />
        <Field name="place" label="Where they stand" required maxLength={60} placeholder="bays 1 to 4" />
        <Field name="putup" label="Put up on" type="date" />
      </div>
      <Exposure />
    </MakeForm>
  );
}
