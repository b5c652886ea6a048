import { err, ok, type Result } from "../result";
import type { VerdictResult } from "../verdict";

/** The links of the earth, from the lead to the part. */
export const earthLinks = ["lead-rack", "rack-hook", "hook-part"] as const;
export type EarthLink = (typeof earthLinks)[number];
/** Part to earth, MΩ; a site or a set-up sheet may ask for less. */
export const EARTH_LIMIT_MOHM = 1;

export type EarthChain = {
  readonly totalMohm: number;
  readonly result: VerdictResult;
  /** The link that holds most of it. */
  readonly worst: EarthLink | null;
  /** Links nobody read: the total is then only a least value. */
  readonly unread: readonly EarthLink[];
};

/**
 * The earth link by link: the links add up, the total is held against the limit. A total under the limit with a link
 * unread is unknown, over it is out all the same. Failures: `bad-input` (under 0), `no-link-read`.
 */
export function earthChain(
  links: Readonly<Partial<Record<EarthLink, number | null>>>,
  limitMohm: number = EARTH_LIMIT_MOHM,
): Result<EarthChain> {
  const read = earthLinks.flatMap((link) => {
    const mohm = links[link];
    return mohm === null || mohm === undefined ? [] : [{ link, mohm }];
  });
  const bad = read.find(({ mohm }) => !(mohm >= 0) || !Number.isFinite(mohm));
  if (bad) return err({ kind: "bad-input", name: bad.link, value: bad.mohm });
  if (read.length === 0) return err({ kind: "no-link-read" });
  const totalMohm = read.reduce((sum, { mohm }) => sum + mohm, 0);
  const unread = earthLinks.filter((link) => !read.some((r) => r.link === link));
  const over = totalMohm > limitMohm * (1 + 1e-9);
  const worst = [...read].sort((a, b) => b.mohm - a.mohm)[0];
  return ok({
    totalMohm,
    result: over ? "out" : unread.length > 0 ? "unknown" : "in",
    worst: worst && worst.mohm > 0 ? worst.link : null,
    unread,
  });
}
