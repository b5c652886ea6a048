import { type RawBuilder, sql } from "kysely";
import { stands } from "./stands";

/**
 * Every reading that says whether a coating still keeps the metal, one row each: structure, zone, what was read, when, whether
 * it is past its limit there, and a creep rating where it is one. `where` narrows the records, named r. By the limits of the
 * standards' scales, as `judgeZone` has them. One index probe a record.
 */
export const zoneReadings = (where: RawBuilder<unknown>): RawBuilder<unknown> => sql`
  select r.structure_id, lower(z.zone) as zone, v.of, r.happened_at, z.rating, v.out from record r join zone_visit z on z.record_id = r.id
    cross join lateral (values ('eye', case when z.sound is null then null else false end), ('creep', z.creep_mm > 3), ('rust', z.rust_ri >= 3), ('tape', z.tape_iso > 2), ('flaking', z.flaking > 2), ('blisters', z.blister_density > 2), ('seam', z.seam_rusted_mm > 0.05 * z.seam_mm)) v(of, out)
    where v.out is not null and r.kind = 'zone-visit' and ${where} and ${stands("r.id")}
  union all select r.structure_id, lower(m.zone), 'creep', r.happened_at, m.rating, m.creep_mm > 3 from record r join creep_measure m on m.record_id = r.id where r.kind = 'visit' and ${where} and ${stands("r.id")}
  union all select r.structure_id, lower(h.zone), 'rust', r.happened_at, null, h.grade >= 3 from record r join rust_share h on h.record_id = r.id where r.kind = 'visit' and ${where} and ${stands("r.id")}`;
