import { err, ok, type Result } from "../result";
import { mean } from "../statistics";

export const profileClasses = ["fine", "medium", "coarse", "unknown"] as const;
export type ProfileClass = (typeof profileClasses)[number];
/** What is taken off a reading on blasted steel where the gauge was set on smooth steel, µm. Source: after ISO 19840. */
export const profileCorrectionUm: Readonly<Record<ProfileClass, number>> = {
  fine: 10,
  medium: 25,
  coarse: 40,
  unknown: 25,
};
/** Bare readings wanted for a base of one's own. */
export const BASE_READINGS = 10;

export type BaseCorrection =
  | { readonly kind: "none"; readonly um: 0 }
  | { readonly kind: "base-readings"; readonly um: number; readonly n: number }
  | { readonly kind: "by-profile"; readonly um: number; readonly profile: ProfileClass };

/**
 * What is taken off each reading: the mean of ten or more bare readings where there are any; else by the profile's class
 * where the gauge was set on smooth steel over a blasted part; else nothing. Never both. Failures: `too-few-readings`
 * (got, need), `bad-input`.
 */
export function baseCorrection(input: {
  readonly bareUm: readonly number[] | null;
  readonly blasted: boolean;
  readonly setOnSmooth: boolean;
  readonly profile: ProfileClass;
}): Result<BaseCorrection> {
  const { bareUm, blasted, setOnSmooth, profile } = input;
  if (bareUm) {
    const bad = bareUm.find((r) => !Number.isFinite(r) || r < -100 || r > 400);
    if (bad !== undefined) return err({ kind: "bad-input", name: "bareUm", value: bad });
    if (bareUm.length < BASE_READINGS)
      return err({ kind: "too-few-readings", shimUm: null, got: bareUm.length, need: BASE_READINGS });
    return ok({ kind: "base-readings", um: mean(bareUm), n: bareUm.length });
  }
  return ok(
    blasted && setOnSmooth
      ? { kind: "by-profile", um: profileCorrectionUm[profile], profile }
      : { kind: "none", um: 0 },
  );
}

/** The class of a measured profile, µm: fine under 50, medium to 85, coarse over. Source: after ISO 8503, grit comparators. */
export const profileClass = (profileUm: number | null): ProfileClass =>
  profileUm === null || !Number.isFinite(profileUm)
    ? "unknown"
    : profileUm < 50
      ? "fine"
      : profileUm <= 85
        ? "medium"
        : "coarse";
