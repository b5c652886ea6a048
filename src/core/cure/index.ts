export * from "./cure-index";
export * from "./heat-up";
export * from "./judge-bake";
export * from "./schedule";
export * from "./trace";
