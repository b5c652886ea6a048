import type { Say } from "./said";

export const say: Say = ({ structure_fact: [row] = [] }) =>
  `of the structure: ${
    [
      row?.told_system,
      row?.told_year ? `coated ${row.told_year}` : "",
      row?.told_coater ? `by ${row.told_coater}` : "",
      row?.promised_years ? `${row.promised_years} years promised` : "",
      row?.latitude != null ? "where it stands" : "",
    ]
      .filter(Boolean)
      .join(", ") || "what is told of it"
  }`;
