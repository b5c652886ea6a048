export * from "./cross-cut";
export * from "./cure-test";
export * from "./pull-off";
export * from "./solvent-rub";
