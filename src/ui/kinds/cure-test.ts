import type { CureTest } from "@/core/bench";
import { cureTestName, cureTestValue } from "../words/bench";
import { type Say, words } from "./said";

export const say: Say = ({ cure_test: [row] = [] }) =>
  row
    ? `${cureTestName[row.test as CureTest] ?? words(row.test)}: ${cureTestValue(row.test as CureTest, row.value)}`
    : "tested";
