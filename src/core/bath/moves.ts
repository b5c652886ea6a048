import { err, ok, type Result } from "../result";
import { type BathParameter, bathParameters } from "./bath-window";
import { sameProduct } from "./dosing";

/** What a bath is dosed with, and what a shop says each product moves. */
export type Dosed = {
  readonly product: string;
  readonly acidProduct: string;
  /** By product as on its drum; one that is not named here moves what its kind usually does. */
  readonly moves?: Readonly<Record<string, readonly BathParameter[]>>;
};

/** Acid moves what acid is measured by; the concentrate all that is dissolved but what is dosed for itself. */
const BY_ACID: readonly BathParameter[] = ["ph", "free-acid", "total-acid", "conductivity"];
const BY_CONCENTRATE: readonly BathParameter[] = ["concentration", ...BY_ACID];
const chemistry: readonly BathParameter[] = bathParameters.filter((p) => p !== "temperature" && p !== "pressure");

/**
 * The values that an event of a bath moves: all that is dissolved where it is dumped or made up anew, else what the shop
 * says of the product, else what its kind usually does. A product nobody knows is taken to move all of it.
 */
export function movedBy(
  bath: Dosed,
  event: { readonly event: string; readonly product: string },
): readonly BathParameter[] {
  if (event.event !== "addition") return chemistry;
  const said = Object.entries(bath.moves ?? {}).find(([product]) => sameProduct(product, event.product));
  if (said) return said[1];
  if (bath.acidProduct !== "" && sameProduct(bath.acidProduct, event.product)) return BY_ACID;
  if (bath.product !== "" && sameProduct(bath.product, event.product)) return BY_CONCENTRATE;
  if (/inhibitor|nitrite|accelerator/i.test(event.product)) return ["inhibitor"];
  return /defoam|antifoam/i.test(event.product) ? [] : chemistry;
}

/** “Acid: ph, conductivity; Defoamer: nothing” as it is kept. Failure: `bad-moves` with the word and what there is. */
export function movesFromText(text: string): Result<Record<string, readonly BathParameter[]>> {
  const moves: Record<string, readonly BathParameter[]> = {};
  for (const part of text.split(";").map((p) => p.trim())) {
    if (part === "") continue;
    const at = part.lastIndexOf(":");
    const product = part.slice(0, at).trim();
    if (at < 1 || product === "") return err({ kind: "bad-moves", word: part, of: bathParameters });
    const words = part
      .slice(at + 1)
      .split(",")
      .map((w) => w.trim().toLowerCase().replaceAll(" ", "-"))
      .filter((w) => w !== "" && w !== "nothing");
    const stray = words.find((w) => !bathParameters.includes(w as BathParameter));
    if (stray !== undefined) return err({ kind: "bad-moves", word: stray, of: bathParameters });
    moves[product] = words as BathParameter[];
  }
  return ok(moves);
}
export const movesText = (moves: Readonly<Record<string, readonly BathParameter[]>>): string =>
  Object.entries(moves)
    .map(
      ([product, values]) =>
        `${product}: ${values.length > 0 ? values.map((p) => p.replaceAll("-", " ")).join(", ") : "nothing"}`,
    )
    .join("; ");
