export * from "./line-stop";
export * from "./passages-from-speed";
export * from "./standing";
