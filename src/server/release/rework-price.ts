import { type ReworkCost, reworkCost } from "@/core/release";
import { filmAsked } from "@/core/thickness";
import type { RackFile } from "../rack/load-rack";
import type { SetupData } from "../setup/setup-data";

/** What doing a rack's coat again costs by the shop's rates; null where it has none, or the part was never measured. */
export function reworkPrice(
  rack: Pick<RackFile, "part" | "powder" | "job" | "pieces">,
  { rates }: Pick<SetupData<"site">, "rates">,
  decision: Parameters<typeof reworkCost>[0]["decision"],
  minutes: number | null,
): ReworkCost | null {
  const { measures } = rack.part.data;
  if (!rates || !measures) return null;
  const { minUm, maxUm } = filmAsked(rack.job.requirement.film);
  const cost = reworkCost({
    decision,
    pieces: rack.pieces.length,
    areaM2: measures.areaM2,
    filmUm: maxUm === null ? minUm : (minUm + maxUm) / 2,
    powder: {
      specificGravity: rack.powder.data.specificGravity,
      pricePerKg: rack.powder.data.pricePerKg ?? 0,
    },
    rates,
    minutes,
  });
  return cost.ok ? cost.value : null;
}
