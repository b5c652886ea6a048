export * from "./escapes";
export * from "./rework-cost";
