import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ complaint: [row] = [] }) =>
  `complaint of ${row?.said_by ?? "a customer"}${row?.their_number ? `, their ${row.their_number}` : ""}${row?.pieces_returned == null ? "" : `, ${countOf(row.pieces_returned, "piece")} back`}: ${row?.what ?? ""}`;
