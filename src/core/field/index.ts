export * from "./creep";
export * from "./rust";
