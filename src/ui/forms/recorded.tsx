/** What came of pressing Record: said where the hand is, and read out. */
export function Recorded({ message }: { message: { readonly good: boolean; readonly text: string } | null }) {
  return message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>;
}

/** The button of a form that records, with what came of it beside it. */
export function RecordRow({
  busy,
  message,
  children,
  primary = true,
}: {
  busy: boolean;
  message: { readonly good: boolean; readonly text: string } | null;
  children: string;
  primary?: boolean;
}) {
  return (
    <p className="flex flex-wrap items-center gap-3">
      <button type="submit" className={`btn ${primary ? "pri" : ""}`} disabled={busy}>
        {busy ? "Recording …" : children}
      </button>
      <Recorded message={message} />
    </p>
  );
}
