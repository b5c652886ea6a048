export * from "./limits";
