export * from "./cross-cut";
export * from "./pull-off";
export * from "./solvent-rub";
