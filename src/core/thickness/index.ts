export * from "./how-many-spots";
export * from "./measuring-areas";
export * from "./nominal";
export * from "./readings";
export * from "./spot-area";
