const USUAL = "http://127.0.0.1:3000";

/** Where this application is reached, as printed in codes and said to sign-in: a setting, where it is an address. */
export function baseAddress(): string {
  const set = process.env.BASE_URL ?? "";
  return /^https?:\/\//.test(set) && URL.canParse(set) ? set.replace(/\/+$/, "") : USUAL;
}
