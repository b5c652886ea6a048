export * from "./parse-shorthand";
