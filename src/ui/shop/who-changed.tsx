import { dateAndTime } from "../format";
import { MarginBlock } from "../frame/margin";

/** Who set what up when and why, the newest first; `most` is how many were asked for. */
export function WhoChanged({
  versions,
  timeZone,
  most = 100,
}: {
  versions: readonly { readonly code: string; readonly at: Date; readonly by: string; readonly reason: string }[];
  timeZone: string;
  most?: number;
}) {
  return (
    <MarginBlock title="Who changed what">
      {versions.length === 0 && <p className="small soft m-0">Nobody yet.</p>}
      {versions.length === most && <p className="small soft m-0">The newest {most}; all stand on record.</p>}
      {versions.map((v) => (
        <p key={`${v.code}${v.at.getTime()}`} className="small m-0 mb-1">
          <b>{v.code}</b> {v.reason}{" "}
          <span className="faint">
            {v.by}, {dateAndTime(v.at, timeZone)}
          </span>
        </p>
      ))}
    </MarginBlock>
  );
}

/** Who set which figure last, as a form says it under the figure. */
export const figuresSaid = (
  changes: ReadonlyMap<string, { readonly by: string; readonly at: Date; readonly reason: string }>,
  timeZone: string,
): Record<string, string> =>
  Object.fromEntries(
    [...changes].map(([name, c]) => [name, `set by ${c.by}, ${dateAndTime(c.at, timeZone)}: ${c.reason}`]),
  );
