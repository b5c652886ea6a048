import type { FilmDecision, FilmDecisionWhy } from "@/core/thickness";

export const filmDecisionName: Record<FilmDecision, string> = {
  accept: "Accept the film",
  "respray-before-cure": "Put it right before the oven",
  "scuff-and-recoat": "Scuff and recoat",
  strip: "Strip and do again",
  hold: "Hold for a lead",
};
export const filmDecisionWhy: Record<FilmDecisionWhy, string> = {
  in: "mean and spots are inside the rule",
  "thin-uncured": "it is thin and still loose powder: add to it now",
  "thin-at-melt": "it is thin and just melted: light places still take powder",
  "thin-cured": "it is thin and cured: a second coat holds on a scuffed film only",
  "thin-no-room": "it is thin and cured, and a second coat would come over the most the sheet bears",
  "thick-uncured": "it is thick and still loose powder: blow it off and do it again",
  "thick-cured": "it is thick and cured: only stripping takes film off, and the customer may take it as it is",
  "thick-and-thin": "it is thin in one place and thick in another: the set-up first, not more powder",
  "few-readings": "there are too few readings to say",
  "unknown-cure": "whether it is baked is not on record",
};
