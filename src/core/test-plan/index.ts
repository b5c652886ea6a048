export * from "./scope";
export * from "./switching";
export * from "./units";
