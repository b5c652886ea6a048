import type { RackVerdict, VerdictItem } from "@/server/rack/judge-rack";
import { countOf } from "../format";
import { itemName } from "./verdict";

const names = (items: readonly VerdictItem[]): string => {
  const all = items.map((i) => itemName(i).toLowerCase());
  return all.length > 1 ? `${all.slice(0, -1).join(", ")} and ${all.at(-1)}` : (all[0] ?? "");
};
const first = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The verdict of the whole in one sentence that a customer understands: no figures, no words of the trade. */
export function sentenceForCustomer({ items, out, missing }: RackVerdict): string {
  const asked = items.filter((i) => i.item !== "open");
  if (out.length > 0)
    return `${first(names(out))} ${out.length === 1 ? "is" : "are"} not as you asked${missing.length > 0 ? `, and ${names(missing)} ${missing.length === 1 ? "is" : "are"} not known yet` : `; the other ${countOf(asked.length - out.length, "point")} ${asked.length - out.length === 1 ? "is" : "are"}`}.`;
  if (missing.length > 0)
    return `Nothing is against it so far, but ${names(missing)} ${missing.length === 1 ? "was" : "were"} not looked at or not read yet.`;
  const leftOut = items.filter((i) => i.plan?.by === "skipped");
  const sampled = items.filter((i) => i.plan?.by === "sample");
  const noted = items.filter((i) => i.result === "watch" && i.plan?.by !== "skipped");
  const also = [
    ...(sampled.length > 0 ? [`${names(sampled)} by a sample of the same run, not on this rack`] : []),
    ...(leftOut.length > 0 ? [`${names(leftOut)} left out, with the reason below`] : []),
  ];
  if (also.length > 0)
    return `Everything that was looked at is as you asked${noted.length > 0 ? ` (${names(noted)} with a note)` : ""}; ${also.join("; ")}.`;
  return noted.length > 0
    ? `Everything you asked for is met; ${names(noted)} ${noted.length === 1 ? "is" : "are"} near the limit or met with a note.`
    : "Everything you asked for was looked at and is as you asked.";
}

const remedy: Record<VerdictItem["item"], readonly [unknown: string, out: string]> = {
  film: [
    "Read the film at every planned spot",
    "Scuff and recoat where it is thin, strip where it is heavy, or the customer takes it",
  ],
  cure: [
    "Put the oven’s trace on record, or rub the film",
    "Bake again where it is short; strip where it is over-baked",
  ],
  adhesion: ["Cut and tape a panel or piece", "A new cut beside it with a reason, else strip"],
  rub: ["Rub it", "Bake again, then rub again"],
  test: ["Do the test", "Test again with a reason, or the customer takes it"],
  appearance: ["Look at every face as asked", "Touch up, recoat, or the customer takes it in that zone"],
  fits: ["Try every thread and fit", "Chase or clean what does not go, and try it again"],
  steps: ["Put the step on record, or leave it out with a reason", "Strip and do it, or the customer takes it"],
  outgassing: ["Put the trace of the outgassing bake on record", "Strip, outgas hotter than the cure, coat again"],
  pretreatment: ["Check the bath near the minute it passed", "Strip and wash again, or the customer takes it"],
  contact: ["Say when it left the stage", "Strip and wash again, or the customer takes it"],
  "dry-off": ["Say whether the parts were dry", "Strip and dry, or the customer takes it"],
  open: ["Look at what is open, and say how it stands", "Look at what is open, and say how it stands"],
};

const missingHow = (item: VerdictItem): string =>
  item.plan?.by === "open" && !item.plan.asked
    ? `Test ${item.plan.racks.filter((r) => r !== null).join(", ") || "the sample of its run"}, or this one itself`
    : remedy[item.item][0];

/** What would change the verdict: for each thing that keeps it back, what would settle it. */
export const whatWouldChange = ({
  out,
  missing,
}: RackVerdict): readonly { readonly item: VerdictItem; readonly how: string }[] => [
  ...missing.map((item) => ({ item, how: missingHow(item) })),
  ...out.map((item) => ({ item, how: remedy[item.item][1] })),
];
