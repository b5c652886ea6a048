export * from "../statistics/random";
export * from "./ageing";
export * from "./bath-model";
export * from "./oven-model";
export * from "./simulate-line";
