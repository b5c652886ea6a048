"use client";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { type BathParameter, concentrationFromTitration, type TitrationRecipe, titrantFromBurette } from "@/core/bath";
import { TypedNumber } from "../forms/typed-number";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { bathValue, parameterName } from "../words/baths";
import { failureText } from "../words/failures";

/** The recipe as steps, one at a time, each short enough to read with a flask in the hand. */
function stepsOf(recipe: TitrationRecipe): readonly string[] {
  return [
    recipe.sampleMl === null
      ? "Take the sample as the sheet says; rinse the pipette with the bath first"
      : `Take ${recipe.sampleMl} mL of the bath; rinse the pipette with it first`,
    ...(recipe.indicator ? [`Add ${recipe.indicator}`] : []),
    `Fill the burette with ${recipe.titrant}, no bubble in its tip; read where it starts`,
    `Titrate, swirling, to the end point: ${recipe.endPoint}`,
    "Read where the burette ends",
  ];
}

/** A titration step by step, ending with the burette's two readings; what was used goes into the round. */
export function TitrationGuide({
  bath,
  parameter,
  recipe,
  blank,
  caution,
  take,
}: {
  bath: string;
  parameter: BathParameter;
  recipe: TitrationRecipe;
  blank: string;
  caution: string;
  take: (mL: string) => void;
}) {
  const { units } = usePreferences();
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const [start, setStart] = useState("0");
  const [end, setEnd] = useState("");
  const steps = stepsOf(recipe);
  const last = at === steps.length - 1;
  const burette = steps.length - 3;
  const [from, to, none] = [parseTyped(start), parseTyped(end), parseTyped(blank)];
  const used = from.ok && to.ok ? titrantFromBurette(from.value, to.value) : null;
  const found =
    used?.ok && none.ok
      ? concentrationFromTitration({ titrantMl: used.value, blankMl: none.value, factor: recipe.factor })
      : null;
  // The hands are full: the reading that comes next has the keyboard.
  useEffect(() => {
    if (open && last) document.getElementById("burette-end")?.focus();
  }, [open, last]);
  const close = () => {
    setOpen(false);
    setAt(0);
    setStart("0");
    setEnd("");
  };
  return (
    <Dialog.Root open={open} onOpenChange={(next) => (next ? setOpen(true) : close())}>
      <Dialog.Trigger asChild>
        <button type="button" className="link min-h-11">
          step by step
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 grid max-h-[92vh] w-[min(560px,94vw)] -translate-x-1/2 -translate-y-1/2 gap-3 overflow-auto border border-rule-strong bg-bench p-6 text-ink">
          <Dialog.Title className="m-0 text-[19px]">
            {bath}: {parameterName[parameter]} by titration
          </Dialog.Title>
          <Dialog.Description className="caution m-0">{recipe.caution || caution}</Dialog.Description>
          <ol className="m-0 grid list-none gap-1 p-0">
            {steps.map((step, i) => (
              <li
                key={step}
                aria-current={i === at ? "step" : undefined}
                className={`grid grid-cols-[28px_minmax(0,1fr)] border-l-4 py-1 pl-2 ${i === at ? "border-sorrel text-[19px] font-bold" : "border-transparent soft"}`}
              >
                <span className="fig">{i + 1}</span>
                <span>{step}</span>
              </li>
            ))}
          </ol>
          <form
            className="grid gap-3"
            noValidate
            onSubmit={(e) => {
              e.preventDefault();
              e.stopPropagation();
              if (!last) return setAt(at + 1);
              if (!used?.ok || !found?.ok) return;
              take(String(used.value));
              close();
            }}
          >
            <div className="grid grid-cols-2 gap-3">
              {at >= burette && (
                <TypedNumber id="burette-start" label="Burette at the start, mL" text={start} change={setStart} />
              )}
              {last && <TypedNumber id="burette-end" label="Burette at the end, mL" text={end} change={setEnd} />}
            </div>
            {used && !used.ok && (
              <p role="alert" className="m-0 text-out">
                {failureText(used.error)}
              </p>
            )}
            {used?.ok && found && (
              <p className="m-0">
                <b className="fig text-[22px]">{used.value.toFixed(2)} mL</b> less {blank} mL blank, times{" "}
                <span className="fig">{recipe.factor}</span>:{" "}
                {found.ok ? (
                  <b className="fig text-[22px]">{bathValue(parameter, found.value, units)}</b>
                ) : (
                  <span className="text-out">{failureText(found.error)}</span>
                )}
              </p>
            )}
            <p className="m-0 flex gap-3">
              <button type="submit" className="btn pri" disabled={last && !found?.ok}>
                {last ? "Take it into the round" : "Next"}
              </button>
              {at > 0 && (
                <button type="button" className="btn" onClick={() => setAt(at - 1)}>
                  Back
                </button>
              )}
              <Dialog.Close asChild>
                <button type="button" className="btn">
                  Leave it
                </button>
              </Dialog.Close>
            </p>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
