import { type Kysely, sql } from "kysely";

/** The wash on the record: stops of the line, rounds left out with their reason; and passages found by stage and time. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(`
create table line_stop (
  record_id uuid primary key references record, line_id uuid not null references setup_entity,
  from_at timestamptz(3) not null, to_at timestamptz(3) not null, cause text not null, check (to_at > from_at));
create index line_stop_from on line_stop (from_at desc);
create table round_skip (
  record_id uuid primary key references record, reason text not null);
create index passage_stage on passage (stage, entered_at);
do $$
declare t text;
begin
  foreach t in array array['line_stop', 'round_skip'] loop
    execute format('create trigger refuse_row_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger refuse_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;
`)
    .execute(db);
}
