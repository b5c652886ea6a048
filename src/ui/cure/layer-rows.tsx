import type { LayerCure } from "@/server/cure/layers";
import { Verdict } from "../marks/verdict";
import { gelStateWords } from "../words/cure";

const layerName: Record<string, string> = { primer: "primer", top: "top coat", clear: "clear" };

/** What each layer has had of heat in all, by the sheet of its own powder; of a gelled primer, what its first bake came to. */
export function LayerRows({ layers }: { layers: readonly LayerCure[] }) {
  return (
    <div className="ruled mt-5">
      <h2>By layer, all bakes added up</h2>
      {layers.map((l) => {
        const over = l.overbakeIndex !== null && l.overbakeIndex > 100;
        const gel = l.gel ? gelStateWords[l.gel.state] : null;
        return (
          <div
            key={l.coatNo + l.powder}
            className="row grid-cols-[minmax(0,1fr)_90px_120px_minmax(0,1.2fr)] items-baseline max-[700px]:grid-cols-2"
          >
            <span>
              <b>Coat {l.coatNo}</b> {layerName[l.layer] ?? l.layer} <span className="soft small">{l.powder}</span>
            </span>
            <span className="num">
              index <b>{l.index === null ? "–" : l.index.toFixed(0)}</b>
            </span>
            <span className="num">over-bake {l.overbakeIndex === null ? "–" : l.overbakeIndex.toFixed(0)}</span>
            <span>
              {gel && l.gel && (
                <>
                  <Verdict result={gel.result}>{gel.word}</Verdict>{" "}
                  <span className="soft small">
                    {l.gel.index.toFixed(0)} of 100 in its first bake{gel.more && `; ${gel.more}`}.{" "}
                  </span>
                </>
              )}
              <span className={over ? "text-out" : "soft small"}>
                {l.bakes} {l.bakes === 1 ? "bake" : "bakes"}
                {over ? ": more heat than its sheet allows in all" : ""}
              </span>
            </span>
          </div>
        );
      })}
    </div>
  );
}
