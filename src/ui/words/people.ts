import type { EquipmentRole, VerificationStanding } from "@/core/site";
import type { VerdictResult } from "@/core/verdict";
import { countOf } from "../format";

/** Roles as people of a shop say them, and what each may do. */
export const roleName = {
  administrator: "administrator",
  lead: "lead",
  inspector: "inspector",
  operator: "operator",
  viewer: "viewer",
} as const;
export const roleSaid: Record<keyof typeof roleName, string> = {
  administrator: "All a lead does, and who is of the shop: makes people, locks them out, gives codes.",
  lead: "Decides on racks, receives work, sets up baths, ovens, powders and limits; all an inspector does.",
  inspector: "Reads film, tests, cure and the field, traces defects; all an operator does.",
  operator: "Records what is done on the line: rounds, steps, coats, loads.",
  viewer: "Looks, and records nothing; held to a customer, sees that customer’s work only.",
};
export const personEventName: Record<string, string> = {
  made: "made",
  changed: "changed",
  locked: "locked out",
  "let-in": "let in again",
  "sessions-ended": "signed out everywhere",
  "code-made": "given a one-time code",
  "password-by-code": "set a password by the code",
  "own-password": "changed their password",
};

export const instrumentKindName: Record<string, string> = {
  "film-gauge": "film gauge",
  "oven-recorder": "oven recorder",
  "bath-meter": "bath meter",
  "gloss-meter": "gloss meter",
  other: "other",
};
export const equipmentRoleName: Record<EquipmentRole, string> = {
  booth: "booth",
  oven: "oven, its room",
  washer: "washer",
  "blast-room": "blast room",
  cart: "cart",
  hook: "hook or fixture",
  rack: "rack",
  gun: "gun",
  compressor: "compressor",
  drier: "air drier",
  line: "line",
};
export const verificationSaid = ({
  state,
  dueOn,
  daysLeft,
}: VerificationStanding): { result: VerdictResult; words: string } =>
  ({
    "not-asked": { result: "unknown" as const, words: "verification not asked for" },
    never: { result: "watch" as const, words: "never verified on record" },
    overdue: { result: "out" as const, words: `verification overdue since ${dueOn}` },
    soon: { result: "watch" as const, words: `to be verified in ${countOf(daysLeft ?? 0, "day")}` },
    in: { result: "in" as const, words: `verified, due ${dueOn}` },
  })[state];

/** What a shop sets up before its first day, in the order it is best done: what it is called, where it is done, and what it is for. */
export const beginningWords = {
  people: { name: "People", href: "/shop/people", why: "Each records under their own name." },
  customers: { name: "Customers", href: "/shop/customers", why: "Work is received for one." },
  baths: { name: "Baths", href: "/pretreat/set-up", why: "What is checked, how often, and its limits." },
  places: { name: "Equipment", href: "/shop/equipment", why: "Booth, guns, carts, hooks: what fits, what they carry." },
  oven: { name: "Oven", href: "/cure/ovens/new/set-up", why: "Loads are planned, pulled and judged by it." },
  powder: { name: "Powder", href: "/coat/powders", why: "Its cure and film stand on its sheet." },
  gauge: { name: "Film gauge", href: "/shop/instruments", why: "Checked on its shims before it reads." },
  limits: { name: "Limits and schools", href: "/shop", why: "What the shop goes by, where nothing else is asked." },
  work: { name: "First work", href: "/plan/receive", why: "Its parts and racks begin here." },
} as const;
