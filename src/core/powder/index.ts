export * from "./layers";
export * from "./powder";
export * from "./shelf-life";
export * from "./transfer";
