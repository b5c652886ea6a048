export * from "./answer";
