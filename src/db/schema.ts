import type { ColumnType, Generated } from "kysely";
import type { DetailRow, DetailTable, Json } from "./detail-tables";

type Written<T> = ColumnType<T, string, never>;
export type EvidenceGradeColumn = "measured" | "by-procedure" | "assumed" | "unknown";

export interface RecordTable {
  id: string;
  kind: string;
  happened_at: Date;
  stored_at: Date;
  by_user: string;
  grade: EvidenceGradeColumn;
  instrument_id: string | null;
  job_id: string | null;
  rack_id: string | null;
  piece_id: string | null;
  bath_id: string | null;
  bake_id: string | null;
  structure_id: string | null;
  case_id: string | null;
  file_id: string | null;
  idempotency_key: string;
  request_hash: string;
  supersedes: string | null;
  reason: string | null;
  /** Supersedes in the ordinary course of things rather than as a correction. */
  in_course: boolean | null;
  content_hash: string;
}
/** Where a rack stands and what it waits for: derived, written with what changes it. */
export interface RackStandingTable {
  rack_id: string;
  number: string;
  job_id: string;
  customer_id: string;
  part_id: string;
  hung_at: Date;
  stage: string;
  passage: string;
  since: Date;
  open: boolean;
  state: string;
  result: string;
  next: string | null;
  next_since: Date;
  held_by: string | null;
  readings: number;
  asked: number;
  defect: string | null;
  iso: number | null;
  bare_since: Date | null;
  unsealed_since: Date | null;
  wiped_at: Date | null;
  /** Tests that a plan asks of it and that are open, and those for which it waits for another rack of its unit. */
  tests_due: string[];
  sample_due: string[];
  /** The load it is in an oven with. */
  bake_id: string | null;
  gone_at: Date | null;
}
interface Tables {
  rack_standing: RackStandingTable;
  /** Released racks that stand otherwise than signed; derived. */
  look_again: {
    rack_id: string;
    decision_id: string;
    since: Date;
    changed: unknown;
    closed_on: string | null;
  };
  /** How the tests that plans called for came out, null while that is not known; derived, by the record of the call. */
  test_outcome: { record_id: string; test: string; plan_id: string; good: boolean | null; at: Date };
  /** How far a job is: pieces ordered and hung, racks on the line; derived, as that of racks. */
  job_standing: {
    job_id: string;
    customer_id: string;
    due_on: string | null;
    ordered: number | null;
    hung: number;
    on_line: number;
    in_hand: boolean;
  };
  setup_entity: { id: string; kind: string; code: string };
  setup_version: {
    id: string;
    entity_id: string;
    valid_from: Date;
    recorded_at: Date;
    by_user: string;
    reason: string;
    data: Written<Json>;
  };
  file: {
    id: string;
    sha256: string;
    media_type: string;
    name: string;
    size_bytes: number;
    bytes: Buffer;
    added_by: string;
    added_at: Date;
  };
  job: {
    id: string;
    number: string;
    customer_id: string;
    part_id: string;
    powder_id: string;
    received_at: Date;
    due_on: string | null;
    /** The customer's own numbers. */
    customer_order: string | null;
    delivery_note: string | null;
    requirement: Written<Json>;
    plan: Written<Json>;
    created_by: string;
  };
  rack: { id: string; number: string; job_id: string; hung_at: Date; created_by: string };
  piece: { id: string; rack_id: string; serial: string; position: number };
  structure: {
    id: string;
    code: string;
    customer_id: string;
    site: string;
    name: string;
    put_up_on: string | null;
    exposure: Written<Json>;
    created_by: string;
  };
  structure_piece: { structure_id: string; piece_id: string; place: string };
  root_cause_case: {
    id: string;
    number: string;
    defect: string;
    defect_record_id: string;
    rack_id: string | null;
    structure_id: string | null;
    zone: string;
    opened_at: Date;
    opened_by: string;
  };
  record: RecordTable;
  seal: {
    number: number;
    sealed_at: Date;
    member_count: number;
    merkle_root: string;
    previous_hash: string;
    hash: string;
    signature: string;
  };
  seal_member: { record_id: string; seal_number: number; position: number; content_hash: string };
  sign_in_attempt: {
    id: Generated<string>;
    username: string;
    address: string;
    at: Date;
    succeeded: boolean;
  };
  user: {
    id: string;
    name: string;
    email: string;
    emailVerified: boolean;
    image: string | null;
    createdAt: Generated<Date>;
    updatedAt: Generated<Date>;
    username: string | null;
    displayUsername: string | null;
    role: string;
    customerId: string | null;
    lockedAt: Generated<Date | null>;
  };
  person_event: {
    id: string;
    person_id: string;
    at: Date;
    by_user: string;
    what: string;
    note: string;
  };
  backup_taken: {
    id: string;
    taken_at: Date;
    file: string;
    /** Given as text by the driver. */
    size_bytes: string;
    encrypted: boolean;
    scheduled: boolean;
  };
  one_time_code: { id: string; person_id: string; code_hash: string; made_at: Date; expires_at: Date };
  one_time_code_use: { code_id: string; at: Date };
  account: {
    id: string;
    accountId: string;
    providerId: string;
    userId: string;
    password: string | null;
    createdAt: Generated<Date>;
    updatedAt: Date;
  };
  session: {
    id: string;
    expiresAt: Date;
    token: string;
    createdAt: Generated<Date>;
    updatedAt: Date;
    ipAddress: string | null;
    userAgent: string | null;
    userId: string;
  };
}
type Details = { [T in DetailTable]: DetailRow<T> };
export type Database = Tables & Details;
