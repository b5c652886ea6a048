"use client";
import { useLiveQuery } from "dexie-react-hooks";
import { countOf } from "../format";
import { Shape } from "../marks/verdict";
import { failureText } from "../words/failures";
import type { Device } from "./device";
import type { Ended } from "./outbox";

export type Counts = { readonly waiting: number; readonly asking: number; readonly refused: number };
const none: Counts = { waiting: 0, asking: 0, refused: 0 };

/** How much of a person's is not on record yet; of everybody's where none is named. */
export function useCounts(device: Device | null, user: string | null): Counts {
  return (
    useLiveQuery(async () => {
      if (!device) return none;
      const of = (state: string) =>
        user === null
          ? device.captures.where("state").equals(state).count()
          : device.captures.where("[user+state]").equals([user, state]).count();
      const [waiting, asking, refused] = await Promise.all([of("waiting"), of("asks-day"), of("refused")]);
      return { waiting, asking, refused };
    }, [device, user]) ?? none
  );
}

/** What is not sent, and why not; says so too when all is sent. */
export function Unsent({
  counts,
  ended,
  busy,
  online,
  kick,
}: {
  counts: Counts;
  ended: Ended | null;
  busy: boolean;
  online: boolean;
  kick: () => void;
}) {
  const { waiting, asking, refused } = counts;
  const all = waiting + asking + refused;
  if (all === 0)
    return (
      <p role="status" className="m-0 flex items-baseline gap-2">
        <Shape result="in" label={false} /> Everything is sent.
        {!online && <span className="soft">No network.</span>}
      </p>
    );
  const signIn = ended?.why === "not-signed-in";
  return (
    <div role="status" className="grid gap-1">
      <p className="m-0 flex flex-wrap items-baseline gap-2">
        <Shape result={refused + asking > 0 ? "out" : "watch"} label={false} />
        <b>{countOf(all, "capture")} not sent</b>
        <span className="soft">
          {refused + asking > 0 && `${refused + asking} of them need you, below. `}
          {waiting > 0 &&
            (busy
              ? "Sending …"
              : signIn
                ? ""
                : online
                  ? "They are sent by themselves; this device keeps them."
                  : "No network: this device keeps them, and sends them when there is one.")}
        </span>
      </p>
      {signIn && (
        <p className="m-0 text-out">
          {failureText(ended.failure)}{" "}
          {ended.failure.kind === "signed-out" && (
            <a className="btn" href="/sign-in?to=%2Fround">
              Sign in and send
            </a>
          )}
        </p>
      )}
      {waiting > 0 && !busy && !signIn && online && (
        <p className="m-0">
          <button type="button" className="btn" onClick={kick}>
            Send now
          </button>
        </p>
      )}
    </div>
  );
}
