export type { Contribution, FindingState, Findings } from "./acting-sets";
export type { Chain, ChainStep } from "./chains";
export * from "./diagnose";
export * from "./gather";
export * from "./knowledge";
export type { NextCheck, Turn } from "./next-checks";
export * from "./site-knowledge";
