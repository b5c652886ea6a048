"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";

/** A drum taken into stock, by its lot. */
export function ChemicalForm({ products, today, take }: { products: readonly string[]; today: string; take: Save }) {
  const begun = { product: "", lot: "", litres: "", price: "", receivedOn: today, usableUntil: "" };
  const held = useEntryForm("chemical", begun);
  const saving = useSave(take, held, { said: "Taken into stock." });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="drum"
      sending={saving}
      button="Take it into stock"
      begin={["lot", "litres"]}
      send={(read) => {
        const { product, lot, receivedOn, usableUntil } = held.values;
        return saving.send({
          product,
          lot,
          receivedOn,
          usableUntil: usableUntil || null,
          litres: read.number("litres", "volume"),
          pricePerL: read.maybe("price"),
        });
      }}
    >
      <F.Words name="product" label="Product, as on the drum" most={80} among={products} />
      <div className="grid grid-cols-2 gap-2">
        <F.Words name="lot" label="Lot" most={40} />
        <F.Num name="litres" label="Holds" quantity="volume" />
        <F.Num name="price" label="Price per L, if known" />
        <span />
        <F.When name="receivedOn" label="Received" />
        <F.When name="usableUntil" label="Usable until" />
      </div>
    </Entry>
  );
}
