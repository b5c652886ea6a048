export * from "./bare-metal";
export * from "./conditions";
export * from "./preparation";
export * from "./steps";
