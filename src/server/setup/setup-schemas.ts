import { bath, chemical } from "./schemas/bath";
import { instrument, traceLayout } from "./schemas/instrument";
import { siteKnowledge } from "./schemas/knowledge";
import { equipment, line, oven, upkeep } from "./schemas/line";
import { part } from "./schemas/part";
import { lot, powder, setupSheet } from "./schemas/powder";
import { customer, site, testPlan } from "./schemas/site";

/** What each kind of set-up data holds. Versioned by validity: a judgement of last year finds the limits of last year. */
export const setupSchemas = {
  customer,
  part,
  powder,
  lot,
  equipment,
  bath,
  chemical,
  line,
  oven,
  upkeep,
  "trace-layout": traceLayout,
  instrument,
  "setup-sheet": setupSheet,
  "test-plan": testPlan,
  site,
  knowledge: siteKnowledge,
} as const;
