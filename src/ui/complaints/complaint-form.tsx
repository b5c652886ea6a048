"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { wantsName } from "../words/complaints";
import { failureText } from "../words/failures";

type Receive = (
  input: unknown,
) => Promise<
  | { readonly ok: true; readonly href: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } }
>;

/** What a customer says of a rack that has left; it opens a case on what they saw. */
export function ComplaintForm({
  rack,
  today,
  defects,
  receive,
}: {
  rack: string;
  /** By the shop's clock. */
  today: string;
  defects: readonly { readonly id: string; readonly label: string }[];
  receive: Receive;
}) {
  const router = useRouter();
  const held = useEntryForm(`complaint ${rack}`, {
    rack,
    saidBy: "",
    saidOn: today,
    theirNumber: "",
    defect: defects[0]?.id ?? "",
    what: "",
    returned: "",
    affected: "",
    wants: "answer",
  });
  const id = useRef<{ content: string; id: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="complaint"
      sending={{ busy, message }}
      button="Record the complaint and open its case"
      primary
      className="mt-4 grid max-w-[760px] gap-3"
      send={async (read) => {
        const { rack: number, saidBy, saidOn, theirNumber, defect, what, wants } = held.values;
        const content = {
          rack: number.trim(),
          saidBy,
          saidOn,
          theirNumber,
          defect,
          what,
          wants,
          piecesReturned: read.maybe("returned"),
          piecesAffected: read.maybe("affected"),
        };
        const text = JSON.stringify(content);
        if (id.current?.content !== text) id.current = { content: text, id: uuidv7() };
        setBusy(true);
        setMessage(null);
        const outcome = await receive({
          ...content,
          id: id.current.id,
          idempotencyKey: `complaint:${id.current.id}`,
          happenedAt: new Date().toISOString(),
        }).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
        setBusy(false);
        if (!outcome.ok) {
          setMessage({ good: false, text: failureText(outcome.failure) });
          return false;
        }
        held.done();
        router.push(outcome.href);
        return true;
      }}
    >
      <div className="grid grid-cols-3 gap-3 max-[700px]:grid-cols-2">
        <F.Words name="rack" label="Rack, as on its certificate or tag" most={20} required />
        <F.Words name="saidBy" label="Who says it" most={80} required />
        <F.When name="saidOn" label="On the day" />
        <F.Words name="theirNumber" label="Their number for it" most={60} />
        <F.Num name="returned" label="Pieces returned" />
        <F.Num name="affected" label="Pieces that show it" />
      </div>
      <F.Pick name="defect" label="What it most looks like" of={defects.map((d) => [d.id, d.label] as const)} />
      <F.Lines name="what" label="What they say, in their words" />
      <F.Pick name="wants" label="They want" of={Object.entries(wantsName)} />
    </Entry>
  );
}
