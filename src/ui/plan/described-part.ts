import {
  type AdvisedSystem,
  advise,
  type Condition,
  type Family,
  type IntakeLine,
  type PartFeature,
  refusals,
  type Schools,
  type Service,
} from "@/core/plan";
import type { Choice } from "./system-choice";

/** What is said of a part beyond its line: condition, features, the system chosen, reasons for what was refused. */
export type More = {
  readonly condition: Condition;
  readonly features: readonly PartFeature[] | null;
  readonly choice: Choice;
  readonly overrule: Readonly<Record<string, string>>;
};
type NumberedLine = IntakeLine & { readonly line: number };

function describePart(
  part: NumberedLine,
  own: More,
  service: Service,
  schools: Schools,
  powder: { readonly family: Family; readonly um: readonly [number, number] } | null,
) {
  const whole = { ...part, features: own.features ?? part.features };
  const advice = service.exposure.length ? advise(whole, own.condition, service, schools) : null;
  const picked: AdvisedSystem | null = advice?.ok ? (advice.value[own.choice] ?? advice.value.recommended) : null;
  const system = picked && powder ? { ...picked.system, family: powder.family, topUm: powder.um } : null;
  return { part: whole, own, advice, picked, system, against: system ? refusals(whole, service, system) : [] };
}
export type DescribedPart = ReturnType<typeof describePart>;

/** Describes parts for one service, and gives the same answer back for the same words: a list of 200 changes by a line. */
export function describer(...context: [Service, Schools, Parameters<typeof describePart>[4]]) {
  const known = new Map<string, DescribedPart>();
  return (part: NumberedLine, own: More): DescribedPart => {
    const key = JSON.stringify([part, own]);
    const found = known.get(key) ?? describePart(part, own, ...context);
    known.set(key, found);
    return found;
  };
}
