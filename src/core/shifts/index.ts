export * from "./shift-at";
