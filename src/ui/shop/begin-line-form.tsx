"use client";
import { useRouter } from "next/navigation";
import { RadioGroup } from "radix-ui";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { Group } from "../fields/one-of";
import { countOf } from "../format";
import { failureText } from "../words/failures";

type Outcome =
  | {
      readonly ok: true;
      readonly baths: number;
      readonly equipment: number;
      readonly ovens: number;
      readonly upkeep: number;
    }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
export type ShownTemplate = {
  readonly id: string;
  readonly name: string;
  readonly tanks: readonly string[];
  readonly things: readonly string[];
};

/** A line to begin from: what it would put on record is read first, and asked once more, since what is there stays on record. */
export function BeginLineForm({
  templates,
  begin,
}: {
  templates: readonly ShownTemplate[];
  begin: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const id = useRef(uuidv7());
  const [chosen, setChosen] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ good: boolean; text: string } | null>(null);
  const template = templates.find((t) => t.id === chosen);
  return (
    <div className="mt-4 grid max-w-[860px] gap-4">
      <Group
        label="The line that is most like yours"
        value={chosen}
        onChange={(value) => {
          setChosen(value);
          setAsked(false);
          setSaid(null);
        }}
        className="grid gap-2"
      >
        {templates.map((t) => (
          <RadioGroup.Item
            key={t.id}
            value={t.id}
            className={`btn justify-start text-left ${chosen === t.id ? "pri" : ""}`}
          >
            {t.name}
          </RadioGroup.Item>
        ))}
      </Group>
      {template && (
        <>
          <div className="ruled grid grid-cols-2 gap-6 max-[700px]:grid-cols-1">
            <div>
              <h2>Its baths</h2>
              <ul className="m-0 list-none p-0">
                {template.tanks.map((name) => (
                  <li key={name} className="border-b border-rule py-1">
                    {name}
                  </li>
                ))}
              </ul>
            </div>
            <div>
              <h2>Its equipment</h2>
              <ul className="m-0 list-none p-0">
                {template.things.map((name) => (
                  <li key={name} className="border-b border-rule py-1">
                    {name}
                  </li>
                ))}
              </ul>
            </div>
          </div>
          <p className="m-0">
            Sizes, windows and set points are only common ones. Put each right by your own tape and your supplier’s
            sheet before you go by it: until then they are assumed.
          </p>
          <p className="m-0 flex flex-wrap items-center gap-3">
            {!asked ? (
              <button type="button" className="btn pri" onClick={() => setAsked(true)}>
                Begin with this line
              </button>
            ) : (
              <>
                <button
                  type="button"
                  className="btn pri"
                  disabled={busy}
                  onClick={async () => {
                    setBusy(true);
                    const outcome = await begin({ id: id.current, template: template.id }).catch(
                      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
                    );
                    setBusy(false);
                    setAsked(false);
                    if (outcome.ok) id.current = uuidv7();
                    setSaid(
                      outcome.ok
                        ? {
                            good: true,
                            text: `On record: ${countOf(outcome.baths, "bath")}, ${countOf(outcome.equipment, "piece")} of equipment, ${countOf(outcome.ovens, "oven")}, ${outcome.upkeep} things to keep up.`,
                          }
                        : { good: false, text: failureText(outcome.failure) },
                    );
                    if (outcome.ok) router.refresh();
                  }}
                >
                  {busy ? "Putting it on record …" : "Yes, put all of it on record"}
                </button>
                <button type="button" className="btn" onClick={() => setAsked(false)}>
                  No
                </button>
              </>
            )}
          </p>
        </>
      )}
      {said && <output className={said.good ? "font-bold text-in" : "text-out"}>{said.text}</output>}
    </div>
  );
}
