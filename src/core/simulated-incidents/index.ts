export { faults } from "./faults";
export { type Incident, incident } from "./incidents";
export { observe } from "./observe";
export type { World } from "./world";
