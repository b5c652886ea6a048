export * from "./capability";
export * from "./describe";
export * from "./distributions";
export * from "./histogram";
export * from "./mean";
export * from "./moments";
export * from "./proportion";
export * from "./random";
