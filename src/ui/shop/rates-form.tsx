"use client";
import { currencies, type SiteRateName, siteRateNames, siteRates } from "@/core/site";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";

type Rates = { readonly currency: string } & Readonly<Record<SiteRateName, number>>;

/** What a price is made of; a shop without rates begins with usual figures, which are not its own until it says so. */
export function RatesForm({
  seen,
  rates,
  changed,
  save,
}: {
  seen: string;
  rates: Rates | null;
  changed: Readonly<Record<string, string>>;
  save: Save;
}) {
  const held = useEntryForm("shop rates", {
    currency: rates?.currency ?? "EUR",
    ...(Object.fromEntries(siteRateNames.map((n) => [n, String(rates?.[n] ?? siteRates[n].usual)])) as Record<
      SiteRateName,
      string
    >),
    reason: "",
  });
  const saving = useSave(save, held, { said: "Kept, from now on.", about: "rates" });
  const F = fieldsOf(held);
  const { currency } = held.values;
  return (
    <Entry
      held={held}
      id="rates"
      sending={saving}
      button={rates ? "Keep them" : "These are ours"}
      primary
      className="mt-4 grid max-w-[980px] gap-4"
      begin={["reason"]}
      send={({ number }) =>
        saving.send({
          seen,
          reason: held.values.reason,
          data: { currency, ...Object.fromEntries(siteRateNames.map((n) => [n, number(n)])) },
        })
      }
    >
      {!rates && (
        <p className="m-0">
          No rates are set up, so nothing here is priced. What stands below are usual figures: put your own in their
          place.
        </p>
      )}
      <div className="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-3">
        <F.Pick name="currency" label="Currency" of={currencies} />
        {siteRateNames.map((n) => {
          const { label, unit, usual, source } = siteRates[n];
          return (
            <F.Num
              key={n}
              name={n}
              label={`${label}, ${unit.replace("¤", currency)}`}
              hint={
                <span>
                  usual {usual}: {source}
                  {changed[n] && <b className="block font-normal text-ink">{changed[n]}</b>}
                </span>
              }
            />
          );
        })}
      </div>
      <F.Words name="reason" label="Why it changes" most={300} required className="max-w-[560px]" />
    </Entry>
  );
}
