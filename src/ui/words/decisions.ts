/** What can be decided on a rack, as it is said. */
export const decisionWords: Record<string, string> = {
  accept: "Accepted",
  hold: "Held",
  "scuff-and-recoat": "Scuff and recoat",
  strip: "Strip and redo",
  concession: "Accepted by concession",
  scrap: "Scrapped",
};
