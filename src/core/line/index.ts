export * from "./decisions";
export * from "./line-stop";
export * from "./open-items";
export * from "./order";
export * from "./passages-from-speed";
export * from "./standing";
