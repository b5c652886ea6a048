export * from "./ewma";
export * from "./extremes";
export * from "./individuals";
export * from "./run-rules";
export * from "./subgroups";
export * from "./trending";
