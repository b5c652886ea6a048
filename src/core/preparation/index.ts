export * from "./bare-metal";
export * from "./conditions";
export * from "./dry-off";
export * from "./how";
export * from "./order";
export * from "./outgas";
export * from "./preparation";
export * from "./steps";
