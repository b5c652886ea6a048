export * from "./passages-from-speed";
