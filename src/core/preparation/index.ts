export * from "./preparation";
