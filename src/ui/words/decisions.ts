/** What can be decided on a rack, as it is said. */
export const decisionWords: Record<string, string> = {
  accept: "Accepted",
  hold: "Held",
  "wipe-off": "Wiped off before the bake",
  "touch-up": "Touch up",
  "scuff-and-recoat": "Scuff and recoat",
  strip: "Strip and redo",
  concession: "Accepted by concession",
  downgrade: "Downgraded",
  scrap: "Scrapped",
};
