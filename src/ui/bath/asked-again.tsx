import type { BathParameter } from "@/core/bath";
import type { UnitSystem } from "@/core/units";
import { bathValue, inUnits, parameterDigits } from "../words/baths";

type Refused = { readonly kind: string; readonly [detail: string]: unknown } | null;

/** A value that looks like a slip: what was probably meant on one button, as typed on the other. Nothing is changed unasked. */
export function AskedAgain({
  refused,
  units,
  busy,
  use,
  sure,
}: {
  refused: Refused;
  units: UnitSystem;
  busy: boolean;
  use: (parameter: BathParameter, text: string) => void;
  sure: () => void;
}) {
  if (refused?.kind !== "value-in-question" && refused?.kind !== "tank-in-question") return null;
  const parameter = refused.parameter as BathParameter;
  const suggested = Number(refused.suggested);
  return (
    <p className="m-0 flex flex-wrap gap-2">
      {refused.kind === "value-in-question" && (
        <button
          type="button"
          className="btn pri"
          disabled={busy}
          onClick={() => use(parameter, inUnits(parameter, suggested, units).toFixed(parameterDigits(parameter)))}
        >
          Use {bathValue(parameter, suggested, units)}
        </button>
      )}
      <button type="button" className="btn" disabled={busy} onClick={sure}>
        It stands as typed
      </button>
    </p>
  );
}
