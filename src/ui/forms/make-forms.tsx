"use client";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { Field, MakeForm, useHeld } from "./make-form";

type Make = Parameters<typeof MakeForm>[0]["make"];
const exposures = ["weather", "sun", "salt", "standing-water", "knocks", "indoor"] as const;

function Exposure() {
  const [chosen, choose] = useHeld().field("exposure");
  return (
    <fieldset className="m-0 flex flex-wrap gap-x-5 border-0 p-0">
      <legend className="small soft">Where it lives</legend>
      {exposures.map((e) => (
        <label key={e} className="flex min-h-11 items-center gap-2">
          <Tick
            checked={chosen?.includes(e) ?? false}
            onChange={(on) => choose(exposures.filter((x) => (x === e ? on : chosen?.includes(x))))}
          />
          {e.replaceAll("-", " ")}
        </label>
      ))}
    </fieldset>
  );
}

/** A rack hung under a job: the next number of a tag offered, and how many pieces are left to hang. */
export function RackForm({
  job,
  next,
  ordered,
  hung,
  make,
}: {
  job: string;
  next: string | null;
  ordered: number | null;
  hung: number;
  make: Make;
}) {
  const left = ordered === null ? null : Math.max(0, ordered - hung);
  return (
    <MakeForm
      title="Hang a rack"
      button="Record the rack"
      anyway="Hang it all the same"
      about={`hang ${job}`}
      begun={{ rack: next ?? "", pieces: String(left && left < 500 ? left : 1) }}
      make={make}
      read={({ rack, pieces }, sure) => ({ job, number: rack, pieces: Number(pieces), sure })}
    >
      <div className="grid grid-cols-2 gap-3">
        <Field name="rack" label="Number on its tag" required maxLength={20} />
        <Field name="pieces" label="Pieces" type="number" min={1} max={500} required />
      </div>
      {left !== null && (
        <p className="small soft m-0">
          {left === 0
            ? `All ${ordered} pieces ordered hang already.`
            : `${left} of ${ordered} pieces are still to hang.`}
        </p>
      )}
    </MakeForm>
  );
}

/** A structure of pieces from here, all of a rack or some by serial; or one whose coating is from elsewhere. */
export function StructureForm({ make, customers }: { make: Make; customers: readonly (readonly [string, string])[] }) {
  return (
    <MakeForm
      title="Put a structure on record"
      button="Record the structure"
      about="structure"
      begun={{ code: "", name: "", site: "", rack: "", serials: "", customer: "", place: "", putup: "", exposure: [] }}
      make={make}
      read={({ putup, rack, serials, customer, ...rest }) => ({
        ...rest,
        rack: String(rack ?? "").trim() || null,
        serials: String(serials ?? "")
          .split(/[\s,;]+/)
          .filter(Boolean),
        customer: customer || null,
        putUpOn: putup || null,
      })}
    >
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <Field name="code" label="Short name (letters, digits, dashes)" required maxLength={24} placeholder="JETTY-B" />
        <Field name="name" label="Name" required maxLength={80} />
        <Field name="site" label="Site" required maxLength={80} />
        <Field name="place" label="Where they stand" required maxLength={60} placeholder="bays 1 to 4" />
        <Field name="rack" label="Made of the pieces of rack; empty where it was coated elsewhere" maxLength={20} />
        <Field name="serials" label="Of these alone, by serial; empty for all" maxLength={2000} />
        <CustomerOf customers={customers} />
        <Field name="putup" label="Put up on" type="date" />
      </div>
      <Exposure />
    </MakeForm>
  );
}

function CustomerOf({ customers }: { customers: readonly (readonly [string, string])[] }) {
  const [chosen, choose] = useHeld().field("customer");
  return (
    <div className="field">
      <label htmlFor="structure-customer">Whose it is, where coated elsewhere</label>
      <Choice id="structure-customer" className="input" value={String(chosen ?? "")} onChange={choose}>
        <option value="">of the rack’s customer</option>
        {customers.map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </Choice>
    </div>
  );
}
