import { withUnit } from "../format";
import { flakeBackName } from "../words/field-zones";
import type { Say } from "./said";

export const say: Say = ({ zone_visit: [row] = [], zone_photo = [], flake: [flake] = [] }, { units }) => {
  if (!row) return "zone looked at";
  const said = [
    row.sound === true ? "sound" : row.sound === false ? "something found" : "",
    row.creep_mm === null ? "" : `creep ${withUnit(row.creep_mm, "creep", units)}`,
    row.rust_ri === null ? "" : `rust Ri ${row.rust_ri}`,
    row.blister_density ? `blisters ${row.blister_density}(S${row.blister_size})` : "",
    row.flaking ? `flaking ${row.flaking}` : "",
    row.tape_iso === null ? "" : `tape ${row.tape_iso}`,
    row.chalk === null ? "" : `chalk ${row.chalk}`,
    row.gloss_gu?.length ? "gloss" : "",
    row.film_um?.length ? "film" : "",
    flake ? `flake: ${flakeBackName[flake.back as keyof typeof flakeBackName] ?? flake.back} on its back` : "",
    zone_photo.length > 0 ? "read from a photo" : "",
  ].filter(Boolean);
  return `${row.zone}: ${said.join(", ") || "looked at"}`;
};
