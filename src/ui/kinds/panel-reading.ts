import { type Say, words } from "./said";

export const say: Say = ({ panel_reading: [row] = [] }) =>
  row
    ? `panel ${row.panel_no} after ${row.hours} h ${words(row.cabinet)}${row.creep_mm === null ? "" : `: creep ${row.creep_mm.toFixed(1)} mm`}${row.next_hours === null ? ", out for good" : ""}`
    : "panel read";
