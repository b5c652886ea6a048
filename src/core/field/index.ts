export * from "./creep";
export * from "./rate";
export * from "./ratings";
export * from "./rust";
export * from "./survival";
export * from "./visits-due";
export * from "./zone-verdict";
export * from "./zones";
