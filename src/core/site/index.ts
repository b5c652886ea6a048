export * from "./acceptance";
export * from "./backup";
export * from "./equipment";
export * from "./limits";
export * from "./line-templates";
export * from "./rates";
export * from "./schools";
export * from "./verification";
