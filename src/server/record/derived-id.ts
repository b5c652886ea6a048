import { sha256 } from "./canonical";

/** A stable UUID (version 7 layout) for one of several records that come from one entry: same time part, the rest by name. */
export function derivedId(uuid: string, name: string): string {
  const hex = sha256(`${uuid}:${name}`);
  return `${uuid.slice(0, 13)}-7${hex.slice(0, 3)}-a${hex.slice(3, 6)}-${hex.slice(6, 18)}`;
}
