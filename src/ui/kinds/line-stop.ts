import type { Say } from "./said";

export const say: Say = ({ line_stop: [row] = [] }) =>
  row
    ? `the line stood ${Math.round((row.to_at.getTime() - row.from_at.getTime()) / 60_000)} min, ${row.cause}`
    : "stop of the line taken back";
