import type { UnitSystem } from "@/core/units";
import type { VerdictItem } from "@/server/rack/judge-rack";
import { Grade, Verdict } from "../marks/verdict";
import { itemName, itemSentence } from "../words/verdict";

/** Everything asked of a rack, a line each: what came of it, and how that is known. */
export function VerdictRows({ items, units }: { items: readonly VerdictItem[]; units: UnitSystem }) {
  return (
    <div className="ruled mt-4">
      {items.map((item) => {
        const said = itemSentence(item, units);
        const key = item.item === "test" ? item.test : item.item === "contact" ? item.stage : item.item;
        return (
          <div
            key={key}
            className="row grid-cols-[110px_130px_minmax(0,1fr)_26px] max-[700px]:grid-cols-[90px_110px_minmax(0,1fr)_26px]"
          >
            <b>{itemName(item)}</b>
            <Verdict result={item.result}>{said.word}</Verdict>
            <span>{said.text}</span>
            <Grade grade={item.grade} />
          </div>
        );
      })}
    </div>
  );
}
