export * from "./number-text";
export * from "./units";
