import { defineKind } from "./kind";

/** A photo of a part, a strip, a rack's metal or a structure. */
export const photo = defineKind({
  kind: "photo",
  tables: {
    photo: {
      caption: "text",
      zone: "text?",
      /** The record it shows: a test with its cloth or tape, a fault. */
      of_record: "uuid?",
    },
  },
  change: false,
  superseded: "by-correction",
  entries: {},
});
