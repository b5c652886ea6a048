/**
 * The typed details of each record kind: column → PostgreSQL type, "?" where it may be null. One list serves
 * insertion, the hash of a record's content, export and the row types, so that they cannot drift apart.
 */
export const detailTables = {
  passage: { stage: "text", entered_at: "timestamptz", left_at: "timestamptz?", source: "text", line_id: "uuid?" },
  bath_check: {
    ordinal: "int",
    parameter: "text",
    value: "float8",
    typed: "text",
    typed_unit: "text",
    titrant_ml: "float8?",
    blank_ml: "float8?",
    factor: "float8?",
  },
  bath_event: {
    event: "text",
    product: "text?",
    amount_l: "float8?",
    parameter: "text?",
    expected_value: "float8?",
    note: "text?",
    /** The drum it came from, where that is on record. */
    lot_id: "uuid?",
  },
  line_stop: { line_id: "uuid", from_at: "timestamptz", to_at: "timestamptz", cause: "text" },
  round_skip: { reason: "text" },
  wash_panel: {
    before_g: "float8?",
    after_g: "float8?",
    area_m2: "float8?",
    g_per_m2: "float8?",
    colour: "text?",
    look: "text",
    note: "text?",
  },
  sludge: { what: "text", depth_mm: "float8?", note: "text?" },
  dry_off: { air_c: "float8?", metal_c: "float8?", parts_dry: "boolean", hollow_blown: "boolean?", note: "text?" },
  outgas: { cure_metal_c: "float8", channel: "text", held_c: "float8?", longest_s: "float8", result: "text" },
  metal_mark: { what: "text", face: "text", x: "float8", y: "float8", decision: "text", reason: "text" },
  upkeep_done: { item_id: "uuid", result: "text", value: "float8?", unit: "text?", who: "text?", note: "text?" },
  panel_test: {
    test: "text",
    washed_at: "timestamptz",
    removed_percent: "float8?",
    iso: "int?",
    hours: "float8?",
    creep_mm: "float8?",
    coating: "text",
    note: "text?",
  },
  thickness_set: { coat_no: "int", source: "text", typed_unit: "text" },
  thickness_reading: {
    ordinal: "int",
    face: "text",
    spot: "text",
    value_um: "float8",
    typed: "text",
    rejected_reason: "text?",
  },
  bake: {
    oven_id: "uuid",
    load_no: "text",
    powder_id: "uuid",
    door_closed_at: "timestamptz",
    pulled_at: "timestamptz?",
    timing: "text",
    set_point_c: "float8?",
    /** Of a piece cured section by section, their names. */
    sections: "jsonb?",
    /** What the oven read as the door closed. */
    air_c: "float8?",
  },
  bake_place: { rack_id: "uuid", place: "text", channel: "text?" },
  bake_channel: { ordinal: "int", name: "text", medium: "text", time_s: "float8[]", temp_c: "float8[]" },
  coat: {
    coat_no: "int",
    layer: "text",
    lot_id: "uuid",
    booth: "text",
    kv: "float8?",
    current_ua: "float8?",
    gun_air_kpa: "float8?",
    distance_mm: "float8?",
    earth_mohm: "float8?",
    hook_cycles: "int?",
    sprayed_hot: "boolean?",
    metal_c: "float8?",
    colour_change_before: "boolean?",
    reclaim_percent: "float8?",
    gun: "text?",
    sheet_id: "uuid?",
    situation: "text?",
    system: "text?",
    gun_air_rest_kpa: "float8?",
    booth_air_m_per_s: "float8?",
    passes: "int?",
    hopper_before_kg: "float8?",
    hopper_after_kg: "float8?",
    hopper_added_kg: "float8?",
  },
  pre_flight: { situation: "text", sheet_id: "uuid?", lot_id: "uuid?" },
  pre_flight_item: {
    ordinal: "int",
    item: "text",
    how: "text",
    value: "float8?",
    unit: "text?",
    good: "boolean?",
    note: "text?",
  },
  lamp_check: { coat_no: "int", faces: "jsonb", wiped: "boolean?", plugs_in: "int?", bumped: "boolean", note: "text?" },
  light_spot: { ordinal: "int", face: "text", x: "float8", y: "float8", what: "text" },
  powder_height: { ordinal: "int", face: "text", spot: "text", height_um: "float8" },
  first_panel: {
    lot_id: "uuid",
    result: "text",
    gloss: "float8?",
    delta_e: "float8?",
    film_um: "float8?",
    note: "text?",
  },
  gauge_check: { tolerance_um: "float8", tolerance_percent: "float8", holds: "boolean", note: "text?" },
  gauge_shim: {
    ordinal: "int",
    certified_um: "float8",
    tolerance_um: "float8",
    readings_um: "float8[]",
    mean_um: "float8",
    holds: "boolean",
  },
  bake_event: {
    oven_id: "uuid",
    load_no: "text",
    event: "text",
    value_c: "float8?",
    emissivity: "float8?",
    aim: "text?",
    count: "int?",
    asked: "int?",
    note: "text?",
    since_door_s: "float8?",
    section: "text?",
    /** How it cools. */
    method: "text?",
  },
  oven_survey: {
    oven_id: "uuid",
    set_point_c: "float8",
    hold_from_s: "float8",
    hold_to_s: "float8",
    door_at_s: "float8?",
    note: "text?",
  },
  survey_place: { ordinal: "int", place: "text", time_s: "float8[]", temp_c: "float8[]" },
  cure_test: {
    test: "text",
    value: "float8",
    readings: "float8[]",
    asked_lower: "float8?",
    asked_upper: "float8?",
    on_panel: "boolean",
  },
  cure_trial: {
    question: "text",
    test: "text",
    unit: "text",
    program_a: "text",
    program_b: "text",
    values_a: "float8[]",
    values_b: "float8[]",
    note: "text?",
  },
  film_plan: {
    rule: "text",
    area_m2: "float8",
    seed: "int",
    spots: "int",
    places: "int",
    measured: "jsonb",
    lot: "int?",
    sample: "int?",
    accept_most: "int?",
    aql: "float8?",
    rql: "float8?",
    producer_risk: "float8?",
    consumer_risk: "float8?",
    pull: "jsonb?",
  },
  base_metal: { readings_um: "float8[]", mean_um: "float8", note: "text?" },
  prep_step: { step: "text", done: "boolean", value: "float8?", unit: "text?", note: "text?", how: "jsonb?" },
  condition: { quantity: "text", value: "float8", unit: "text", place: "text" },
  cross_cut: {
    removed_percent: "float8",
    squares_lost: "int?",
    squares: "int?",
    spacing_mm: "float8?",
    iso: "int",
    astm: "text",
    on_panel: "boolean",
  },
  solvent_rub: { double_rubs: "int", rub_limit: "int", grade: "int", known_cured_grade: "int?", on_panel: "boolean" },
  defect: {
    defect: "text",
    face: "text?",
    x: "float8?",
    y: "float8?",
    extent_percent: "float8?",
    pieces_affected: "int?",
    pieces_seen: "int?",
    note: "text?",
  },
  disposition: { decision: "text", note: "text", verdict: "jsonb", signed_name: "text" },
  certificate: { number: "text", document: "jsonb" },
  visit: { weather: "text?", note: "text?" },
  creep_measure: {
    ordinal: "int",
    zone: "text",
    from_what: "text",
    scribe_mm: "float8?",
    widths_mm: "float8[]",
    creep_mm: "float8",
    rating: "int?",
  },
  finding: { finding: "text", state: "text", note: "text?" },
  confirmation: {
    cause: "text",
    proof: "text",
    correction: "text",
    corrective_action: "text",
    who: "text",
    due_on: "date?",
  },
  job_plan: { version: "int", released: "boolean", document: "jsonb" },
  offer: {
    code: "text",
    what: "text",
    quantity: "float8?",
    unit: "text?",
    price: "float8?",
    currency: "text",
    risk: "text",
  },
  offer_answer: {
    offer_id: "uuid",
    taken: "boolean",
    who: "text",
    how: "text",
    answered_on: "date",
    note: "text?",
  },
  job_start: { start_at: "timestamptz?" },
  photo: { caption: "text", zone: "text?" },
} as const;

export type DetailTable = keyof typeof detailTables;

type Scalar = {
  text: string;
  uuid: string;
  int: number;
  float8: number;
  boolean: boolean;
  timestamptz: Date;
  date: string;
  "float8[]": (number | null)[];
  jsonb: Json;
};
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
type Columns<T extends DetailTable> = (typeof detailTables)[T];
type Required<C> = {
  [K in keyof C as C[K] extends `${string}?` ? never : K]: C[K] extends keyof Scalar ? Scalar[C[K]] : never;
};
type Optional<C> = {
  [K in keyof C as C[K] extends `${string}?` ? K : never]?: C[K] extends `${infer S extends keyof Scalar}?`
    ? Scalar[S] | null
    : never;
};
/** A detail row as it is written; `record_id` is added when it is stored. */
export type NewDetail<T extends DetailTable> = Required<Columns<T>> & Optional<Columns<T>>;
type Stored<C> = {
  [K in keyof C]: C[K] extends `${infer S extends keyof Scalar}?`
    ? Scalar[S] | null
    : C[K] extends keyof Scalar
      ? Scalar[C[K]]
      : never;
};
/** A detail row as it is read. */
export type DetailRow<T extends DetailTable> = { record_id: string } & Stored<Columns<T>>;

export const detailTableNames = Object.keys(detailTables) as DetailTable[];
