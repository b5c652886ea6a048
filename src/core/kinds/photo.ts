import { defineKind } from "./kind";

/** A photo of a part, a strip, a rack's metal or a structure. */
export const photo = defineKind({
  kind: "photo",
  tables: {
    photo: { caption: "text", zone: "text?" },
  },
  change: false,
  superseded: "by-correction",
  entries: {},
});
