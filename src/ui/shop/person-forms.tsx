"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { fieldsOf, type Options } from "../fields/in-form";
import { dateAndTime } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Outcome, type Save, useSave } from "../forms/use-save";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { roleName, roleSaid } from "../words/people";

type Role = keyof typeof roleName;
const roles: Options = Object.entries(roleName);

/** Someone of the shop: made, or their name, role and customer changed. */
export function PersonForm({
  person,
  customers,
  save,
}: {
  /** Null for someone new. */
  person: { readonly username: string; readonly name: string; readonly role: Role; readonly customer: string } | null;
  customers: readonly { readonly code: string; readonly name: string }[];
  save: Save;
}) {
  const held = useEntryForm(`person ${person?.username ?? "new"}`, {
    username: person?.username ?? "",
    name: person?.name ?? "",
    role: (person?.role ?? "operator") as Role,
    customer: person?.customer ?? "",
  });
  const saving = useSave(save, held, {
    said: person ? "Changed. They sign in anew." : "Made. Give them a one-time code, by which they set their password.",
  });
  const F = fieldsOf(held);
  const { role } = held.values;
  return (
    <Entry
      held={held}
      id={`person-${person?.username ?? "new"}`}
      sending={saving}
      button={person ? "Save the change" : "Make this person"}
      primary={!person}
      className="grid max-w-[720px] gap-3"
      begin={person ? [] : ["username", "name", "role", "customer"]}
      send={() => {
        const { username, name, customer } = held.values;
        return saving.send({
          username,
          name,
          role,
          customer: role === "viewer" ? customer : "",
          fresh: person === null,
        });
      }}
    >
      <div className="grid grid-cols-[170px_minmax(0,1fr)_180px] gap-3 max-[700px]:grid-cols-1">
        {person === null && <F.Words name="username" label="User name" most={40} placeholder="anna" required />}
        <F.Words name="name" label="Name" most={60} required />
        <F.Pick name="role" label="Role" of={roles} />
      </div>
      <p className="small soft m-0">
        {roleSaid[role]}
        {person === null ? " The user name stands under all they record." : ""}
      </p>
      {role === "viewer" && (
        <F.Pick
          name="customer"
          label="Sees the work of"
          className="max-w-[340px]"
          of={[["", "everyone: of the shop"], ...customers.map((c) => [c.code, c.name] as const)]}
        />
      )}
    </Entry>
  );
}

type Given =
  | { readonly ok: true; readonly code: string; readonly expiresAt: Date }
  | Extract<Outcome, { readonly ok: false }>;

/** What is done to someone in one press: a code, signed out everywhere, locked out or let in. Locking out is asked once more. */
export function PersonKeys({
  username,
  name,
  locked,
  sessions,
  own,
  act,
  giveCode,
}: {
  username: string;
  name: string;
  locked: boolean;
  /** Signed in now, in so many places. */
  sessions: number;
  /** It is the one who looks. */
  own: boolean;
  act: Save;
  giveCode: (input: unknown) => Promise<Given>;
}) {
  const router = useRouter();
  const { timeZone } = usePreferences();
  const [busy, setBusy] = useState(false);
  const [sure, setSure] = useState(false);
  const [said, setSaid] = useState<{ readonly good: boolean; readonly text: string } | null>(null);
  const [code, setCode] = useState<{ readonly code: string; readonly expiresAt: Date } | null>(null);
  const run = async (what: "lock" | "let-in" | "end-sessions", done: string) => {
    setBusy(true);
    setSure(false);
    const outcome = await act({ username, what }).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setBusy(false);
    setSaid(outcome.ok ? { good: true, text: done } : { good: false, text: failureText(outcome.failure) });
    if (outcome.ok) router.refresh();
  };
  const give = async () => {
    setBusy(true);
    const outcome = await giveCode({ username }).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setBusy(false);
    setCode(outcome.ok ? outcome : null);
    setSaid(outcome.ok ? null : { good: false, text: failureText(outcome.failure) });
    router.refresh();
  };
  return (
    <div className="grid gap-2">
      <p className="m-0 flex flex-wrap gap-2">
        {!locked && (
          <button type="button" className="btn" disabled={busy} onClick={() => void give()}>
            Give a one-time code
          </button>
        )}
        {sessions > 0 && !own && (
          <button
            type="button"
            className="btn"
            disabled={busy}
            onClick={() => void run("end-sessions", "Signed out everywhere.")}
          >
            Sign out everywhere
          </button>
        )}
        {locked ? (
          <button
            type="button"
            className="btn"
            disabled={busy}
            onClick={() => void run("let-in", "May sign in again.")}
          >
            Let in again
          </button>
        ) : (
          !own &&
          (sure ? (
            <>
              <button
                type="button"
                className="btn pri"
                disabled={busy}
                onClick={() => void run("lock", "Locked out; all they recorded stays.")}
              >
                Yes, lock {name} out
              </button>
              <button type="button" className="btn" onClick={() => setSure(false)}>
                No
              </button>
            </>
          ) : (
            <button type="button" className="btn" disabled={busy} onClick={() => setSure(true)}>
              Lock out
            </button>
          ))
        )}
      </p>
      {code && (
        <div role="status" className="border-in border-l-4 pl-3">
          <p className="m-0">
            Give {name} this code: <b className="fig text-[20px]">{code.code.replace(/(.{5})/, "$1 ")}</b>
          </p>
          <p className="small soft m-0">
            It works once, until {dateAndTime(new Date(code.expiresAt), timeZone)}, under “I was given a one-time code”
            on the way in. It is shown here only now.
          </p>
        </div>
      )}
      {said && <output className={said.good ? "text-in" : "text-out"}>{said.text}</output>}
    </div>
  );
}

/** One's own password, by the old one. Passwords are no draft: they stand nowhere but here. */
export function OwnPasswordForm({ least, change }: { least: number; change: Save }) {
  const [texts, setTexts] = useState({ old: "", fresh: "", again: "" });
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const field = (name: keyof typeof texts, label: string, complete: string) => (
    <div className="field">
      <label htmlFor={`password-${name}`}>{label}</label>
      <input
        id={`password-${name}`}
        type="password"
        className="input"
        autoComplete={complete}
        required
        minLength={name === "old" ? undefined : least}
        maxLength={200}
        value={texts[name]}
        onChange={(e) => setTexts((t) => ({ ...t, [name]: e.target.value }))}
      />
    </div>
  );
  return (
    <form
      className="mt-4 grid max-w-[340px] gap-4"
      onSubmit={async (e) => {
        e.preventDefault();
        if (texts.fresh !== texts.again)
          return setMessage({ good: false, text: failureText({ kind: "passwords-differ" }) });
        setBusy(true);
        const outcome = await change({ old: texts.old, password: texts.fresh }).catch(() => ({
          ok: false as const,
          failure: { kind: "not-saved" },
        }));
        setBusy(false);
        setMessage(
          outcome.ok
            ? { good: true, text: "Changed. Wherever else you were signed in you are no more." }
            : { good: false, text: failureText(outcome.failure) },
        );
        if (outcome.ok) setTexts({ old: "", fresh: "", again: "" });
      }}
    >
      {field("old", "Password now", "current-password")}
      {field("fresh", `New one, ${least} characters or more`, "new-password")}
      {field("again", "The new one once more", "new-password")}
      <p className="m-0">
        <button type="submit" className="btn pri" disabled={busy}>
          {busy ? "Changing …" : "Change it"}
        </button>
      </p>
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </form>
  );
}
