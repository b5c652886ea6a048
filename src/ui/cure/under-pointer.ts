import { type CollisionDetection, pointerWithin, rectIntersection } from "@dnd-kit/core";

/** What is dragged is a whole row: it drops where the pointer is, not where most of the row lies; by key where the row lies. */
export const underPointer: CollisionDetection = (args) =>
  args.pointerCoordinates ? pointerWithin(args) : rectIntersection(args);
