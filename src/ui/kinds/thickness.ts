import { countOf } from "../format";
import type { Say } from "./said";

export const say: Say = (_, { count }) => `film, ${countOf(count("thickness_reading"), "reading")}`;
