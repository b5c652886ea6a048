"use client";
import { type AdvisedSystem, hadOutside, type ShopHas } from "@/core/plan";
import { Dot, Group } from "../fields/one-of";
import { Grade } from "../marks/verdict";
import { changeName, lifeText, outsideName, systemText } from "../words/plan";

export type Choice = "recommended" | "cheaper" | "better";

/** The recommended system between a cheaper and a better one: what each gives up or adds, how long it lasts, what it costs. */
export function SystemChoice({
  advice,
  has = null,
  chosen,
  choose,
}: {
  /** What the shop can do itself; null where it is not asked. */
  has?: ShopHas | null;
  advice: {
    readonly recommended: AdvisedSystem;
    readonly cheaper: AdvisedSystem | null;
    readonly better: AdvisedSystem | null;
  };
  chosen: Choice | null;
  choose: (choice: Choice) => void;
}) {
  const all = (["cheaper", "recommended", "better"] as const).flatMap((key) => {
    const system = advice[key];
    return system ? [{ key, system }] : [];
  });
  return (
    <Group
      label="System"
      value={chosen}
      onChange={choose}
      className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(230px,1fr))] gap-2"
    >
      {all.map(({ key, system: s }) => (
        <label
          key={key}
          className={`block cursor-pointer border-[1.5px] p-3 ${chosen === key ? "border-sorrel bg-sorrel-tint" : "border-rule-strong bg-raised"}`}
        >
          <span className="flex items-center justify-between gap-2">
            <span className="flex items-center gap-2">
              <Dot value={key} />
              <b>{{ cheaper: "Cheaper", recommended: "Recommended", better: "Better" }[key]}</b>
            </span>
            <span className="fig small">
              cost {Math.round((s.relativeCost / advice.recommended.relativeCost) * 100)} %
            </span>
          </span>
          <span className="mt-1 block leading-snug">{systemText(s.system)}</span>
          <span className="mt-1 block">
            <b className="fig text-[18px]">{lifeText(s.life)}</b>{" "}
            <span className="small soft">
              {s.life.limitedBy === "rust" ? "until rust" : "until colour goes"} <Grade grade={s.life.grade} />
            </span>
          </span>
          {s.changes.map((c) => (
            <span key={c} className="small soft block">
              {changeName[c] ?? c}
            </span>
          ))}
          {has && hadOutside(s.system, has).length > 0 && (
            <span className="small mt-1 block text-watch">
              Not done here, to be had outside:{" "}
              {hadOutside(s.system, has)
                .map((work) => outsideName[work])
                .join(", ")}
            </span>
          )}
          <span className="small soft block">
            {s.risks.length === 0
              ? "no known risk left"
              : `${s.risks.length} risk${s.risks.length > 1 ? "s" : ""} left`}
          </span>
        </label>
      ))}
    </Group>
  );
}
