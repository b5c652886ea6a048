export * from "./shift-at";
export * from "./work-clock";
