export * from "./addition";
export * from "./bath-window";
export * from "./titration";
export * from "./trend";
export * from "./value-at-passage";
