export * from "./bath-model";
export * from "./oven-model";
export * from "./random";
export * from "./simulate-line";
