/** How a shop writes units, numbers and dates, as it is chosen. */
export const unitNames = [
  ["metric", "metric: µm, °C"],
  ["us", "US: mil, °F"],
] as const;
export const markNames = [
  ["", "either way; asked in doubt"],
  [".", "with a point: 72.5"],
  [",", "with a comma: 72,5"],
] as const;
export const orderNames = [
  ["", "asked each time"],
  ["dmy", "day first"],
  ["mdy", "month first"],
  ["ymd", "year first"],
] as const;
