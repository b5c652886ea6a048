export * from "./diagnose";
export * from "./knowledge";
