export * from "./first-pass";
export * from "./pareto";
