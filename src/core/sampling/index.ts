export * from "./random-places";
export * from "./sampling-plan";
