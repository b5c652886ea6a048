import "server-only";
import { hash, verify } from "@node-rs/argon2";
import { betterAuth } from "better-auth";
import { nextCookies } from "better-auth/next-js";
import { username } from "better-auth/plugins";
import { baseAddress } from "../base-address";
import { database } from "../database";

const make = () =>
  betterAuth({
    database: { db: database(), type: "postgres" },
    baseURL: baseAddress(),
    secret: process.env.SIGN_IN_SECRET ?? "",
    telemetry: { enabled: false },
    logger: { disabled: true },
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: 10,
      password: {
        hash: (password) => hash(password),
        verify: ({ hash: stored, password }) => verify(stored, password),
      },
    },
    user: {
      additionalFields: {
        role: { type: "string", defaultValue: "viewer", input: false },
        customerId: { type: "string", required: false, input: false },
        lockedAt: { type: "date", required: false, input: false },
      },
    },
    session: { expiresIn: 60 * 60 * 12, cookieCache: { enabled: false } },
    advanced: { cookiePrefix: "sorrel", useSecureCookies: baseAddress().startsWith("https:") },
    plugins: [username(), nextCookies()],
  });

const held = globalThis as { sorrelAuth?: ReturnType<typeof make> };
/** Sign-in, made on first use so that building needs no secret. Its own HTTP routes are not mounted: only the actions here reach it. */
export function auth(): ReturnType<typeof make> {
  held.sorrelAuth ??= make();
  return held.sorrelAuth;
}
