export * from "./change-point";
export * from "./contrast";
export * from "./fisher";
export * from "./mann-whitney";
export * from "./several-tests";
