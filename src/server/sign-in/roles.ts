export const roles = ["administrator", "lead", "inspector", "operator", "viewer"] as const;
export type Role = (typeof roles)[number];

/** What a person may do. Checked on the server for every action, route and file. */
export type Ability = "look" | "log-line" | "inspect" | "release" | "administer";
const abilities: Record<Role, readonly Ability[]> = {
  administrator: ["look", "log-line", "inspect", "release", "administer"],
  lead: ["look", "log-line", "inspect", "release"],
  inspector: ["look", "log-line", "inspect"],
  operator: ["look", "log-line"],
  viewer: ["look"],
};
export const may = (role: Role, ability: Ability): boolean => abilities[role].includes(ability);

export type Person = {
  readonly id: string;
  readonly username: string;
  readonly name: string;
  readonly role: Role;
  /** A viewer tied to a customer sees that customer's work only. */
  readonly customerId: string | null;
};

/** One of the shop's own people, held to no customer. */
export const ofTheShop = (person: Person): boolean => person.customerId === null;
/** Whether this person may see what is this customer's. */
export const seesCustomer = (person: Person, customerId: string | null | undefined): boolean =>
  ofTheShop(person) || customerId === person.customerId;

/** What each painter's work came to is a lead's to see; anyone else sees their own: it is no ranking of people. */
export const seesPainters = (person: Person): boolean => may(person.role, "release");

/** Rates, cost and margin are the shop's own: for its inspectors, leads and administrators, never for a customer's person. */
export const seesCost = (person: Person): boolean => ofTheShop(person) && may(person.role, "inspect");

/** Where the shop itself judges what came: what a record comes to does not hang on who wrote it. */
export const theShop: Person = { id: "", username: "", name: "", role: "lead", customerId: null };
