export * from "./film-plan";
export * from "./random-places";
export * from "./sampling-plan";
