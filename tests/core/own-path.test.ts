import { existsSync, mkdtempSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { describe, expect, test } from "vitest";
import { photoAbility } from "@/server/field/add-photo";
import { ownPath } from "@/server/sign-in/own-path";
import { answersAt, isOurs } from "../../scripts/lib/environment.mjs";

describe("doors that stay shut", () => {
  test.each([
    ["/racks/0869?x=1#a", "/racks/0869?x=1#a"],
    ["/", "/"],
    ["//evil.example", "/"],
    ["/\\evil.example", "/"],
    ["/\t/evil.example", "/"],
    ["/%09/evil.example", "/%09/evil.example"],
    ["/\n//evil.example", "/"],
    ["/.//evil.example", "/"],
    ["https://evil.example", "/"],
    ["javascript:alert(1)", "/"],
    ["", "/"],
  ])("after sign-in %j leads to %j", (to, expected) => {
    expect(ownPath(to)).toBe(expected);
  });
  test("a photo's field sent empty names nothing: of a structure it is an inspector's", () => {
    const form = (fields: Record<string, string>) => {
      const data = new FormData();
      for (const [name, value] of Object.entries(fields)) data.set(name, value);
      return data;
    };
    expect(photoAbility(form({ rack: "0869" }))).toBe("log-line");
    expect(photoAbility(form({ bath: "tank 3" }))).toBe("log-line");
    expect(photoAbility(form({ rack: "", structure: "jetty-a" }))).toBe("inspect");
    expect(photoAbility(form({ rack: " ", bath: "", job: "J-1" }))).toBe("inspect");
  });
  test("a process that took the number again is not ours to end", () => {
    expect(isOurs(process.pid)).toBe(false);
    expect(isOurs(2 ** 22 + 7)).toBe(false);
  });
  test("nor is it a database that answers: its pid file is taken away, so that the next start begins one", () => {
    const dir = mkdtempSync(path.join(os.tmpdir(), "pid-"));
    const pidFile = path.join(dir, "postmaster.pid");
    writeFileSync(pidFile, `${process.pid}\n${dir}\n`);
    // No server on that port, and the number in the file is this process's.
    expect(answersAt("/usr/bin", 1, pidFile)).toBe(false);
    expect(existsSync(pidFile)).toBe(false);
  });
});
