export * from "./bath-file";
export * from "./gauge-file";
export * from "./oven-file";
export type * from "./text";
