import { withUnit } from "../format";
import { bakeEventSentence } from "../words/cure";
import { type Say, words } from "./said";

export const say: Say = ({ bake_event: [row] = [], light_spot: places = [] }, { units }) => {
  const said = bakeEventSentence[row?.event ?? ""] ?? (words(row?.event) || "load noted");
  return [
    said,
    row?.value_c == null ? "" : withUnit(row.value_c, "temperature", units),
    row?.section ?? "",
    places.length > 0 ? `at ${places.length} ${places.length === 1 ? "place" : "places"}` : "",
  ]
    .filter(Boolean)
    .join(", ");
};
