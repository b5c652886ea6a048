// In every worker of a run with faults: which one is on, and which were passed by this file of tests.
import { appendFileSync } from "node:fs";
import { afterAll, expect } from "vitest";

const on = Number(process.env.FAULT_ON ?? -1);
const passed = new Set<number>();
(globalThis as { __fault?: (id: number) => boolean }).__fault = (id) => {
  passed.add(id);
  return id === on;
};
afterAll(() => {
  const out = process.env.FAULTS_PASSED;
  if (out) appendFileSync(out, `${JSON.stringify({ file: expect.getState().testPath, passed: [...passed] })}\n`);
});
