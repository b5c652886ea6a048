import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = ({ oven_survey: [row] = [] }, { name, count }) =>
  `${name(row?.oven_id) || "oven"} surveyed at ${countOf(count("survey_place"), "place")}`;
