export * from "./ewma";
export * from "./individuals";
export * from "./run-rules";
