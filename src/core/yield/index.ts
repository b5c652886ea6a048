export * from "./first-pass";
export * from "./pareto";
export * from "./place-map";
