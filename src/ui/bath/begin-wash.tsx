"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { Choice } from "../fields/choice";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** A usual wash to begin from; asked once more before its tanks are added, since a tank once there stays on record. */
export function BeginWash({
  templates,
  begin,
}: {
  templates: readonly { readonly id: string; readonly name: string; readonly tanks: readonly string[] }[];
  begin: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const id = useRef(uuidv7());
  const [chosen, setChosen] = useState(templates[0]?.id ?? "");
  const [asked, setAsked] = useState(false);
  const [state, setState] = useState<{ busy: boolean; text: string; good: boolean }>({
    busy: false,
    text: "",
    good: true,
  });
  const template = templates.find((t) => t.id === chosen);
  return (
    <div className="grid gap-2">
      <div className="field">
        <label htmlFor="wash-template">A usual wash</label>
        <Choice
          id="wash-template"
          className="input"
          value={chosen}
          onChange={(value) => {
            setChosen(value);
            setAsked(false);
          }}
        >
          {templates.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </Choice>
      </div>
      {template && (
        <ul className="m-0 list-none p-0">
          {template.tanks.map((name) => (
            <li key={name} className="border-b border-rule py-1.5">
              {name}
            </li>
          ))}
        </ul>
      )}
      <p className="m-0 flex flex-wrap items-center gap-3">
        {!asked ? (
          <button type="button" className="btn" onClick={() => setAsked(true)}>
            Add these tanks
          </button>
        ) : (
          <>
            <button
              type="button"
              className="btn pri"
              disabled={state.busy}
              onClick={async () => {
                setState({ busy: true, text: "", good: true });
                const outcome = await begin({ id: id.current, template: chosen }).catch(
                  (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
                );
                if (outcome.ok) id.current = uuidv7();
                setAsked(false);
                setState({
                  busy: false,
                  good: outcome.ok,
                  text: outcome.ok ? "Added. Put each right by the supplier's sheet." : failureText(outcome.failure),
                });
                if (outcome.ok) router.refresh();
              }}
            >
              Yes, add {template?.tanks.length} tanks
            </button>
            <button type="button" className="btn" onClick={() => setAsked(false)}>
              No
            </button>
          </>
        )}
        {state.text && <output className={state.good ? "text-in" : "text-out"}>{state.text}</output>}
      </p>
    </div>
  );
}
