export * from "./powder";
