export * from "./bath-file";
export * from "./file-kind";
export * from "./gauge-file";
export * from "./moment-text";
export * from "./oven-file";
export type * from "./text";
export * from "./trace-file";
export * from "./trace-layout";
