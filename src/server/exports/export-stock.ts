import "server-only";
import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { chemicalStock } from "../baths/chemical-stock";
import { powderLots } from "../coat/powder-lots";
import { type CsvStyle, csvLines } from "./export-table";

/** Powder and bath chemicals on hand at a moment, as CSV. */
export async function exportStock(db: Kysely<Database>, at: Date, style: CsvStyle): Promise<string> {
  const [lots, drums] = await Promise.all([powderLots(db, at), chemicalStock(db, at)]);
  return csvLines(
    [
      [
        "what",
        "product",
        "lot",
        "made_on",
        "received_on",
        "received",
        "left",
        "unit",
        "usable_until",
        "days_left",
        "as_of",
      ],
      ...lots.map((l) => [
        "powder",
        l.powder?.data.name ?? "",
        l.code,
        l.madeOn,
        l.receivedOn,
        l.receivedKg,
        l.stockKg,
        "kg",
        null,
        Math.floor(l.daysLeft),
        at,
      ]),
      ...drums.map((d) => [
        "chemical",
        d.product,
        d.lot,
        null,
        d.receivedOn,
        d.litres,
        d.leftL,
        "L",
        d.usableUntil,
        null,
        at,
      ]),
    ],
    style,
  );
}
