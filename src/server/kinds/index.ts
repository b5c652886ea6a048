import type { EntryKind } from "@/core/kinds";
import { makes as actionCheck } from "./action-check";
import { makes as bake } from "./bake";
import { makes as bakeEvent } from "./bake-event";
import { makes as baseMetal } from "./base-metal";
import { makes as bathCheck } from "./bath-check";
import { makes as bathEvent } from "./bath-event";
import { makes as caseDefect } from "./case-defect";
import { makes as caseNote } from "./case-note";
import { makes as coat } from "./coat";
import { makes as complaint } from "./complaint";
import { makes as complaintAnswer } from "./complaint-answer";
import { makes as condition } from "./condition";
import { makes as crossCut } from "./cross-cut";
import { makes as cureTest } from "./cure-test";
import { makes as cureTrial } from "./cure-trial";
import { makes as defect } from "./defect";
import { makes as disposition } from "./disposition";
import { makes as dryOff } from "./dry-off";
import { makes as extraWork } from "./extra-work";
import { makes as filmPlan } from "./film-plan";
import { makes as finding } from "./finding";
import { makes as firstPanel } from "./first-panel";
import { makes as fitCheck } from "./fit-check";
import { makes as gaugeCheck } from "./gauge-check";
import { makes as itemClosed } from "./item-closed";
import { makes as lampCheck } from "./lamp-check";
import { makes as lineStop } from "./line-stop";
import { makes as look } from "./look";
import type { Make, Makes } from "./made";
import { makes as metalMark } from "./metal-mark";
import { makes as outgas } from "./outgas";
import { makes as ovenSurvey } from "./oven-survey";
import { makes as panel } from "./panel";
import { makes as panelFilm } from "./panel-film";
import { makes as panelReading } from "./panel-reading";
import { makes as panelTest } from "./panel-test";
import { makes as passage } from "./passage";
import { makes as powderHeight } from "./powder-height";
import { makes as preFlight } from "./pre-flight";
import { makes as prepStep } from "./prep-step";
import { makes as pullOff } from "./pull-off";
import { makes as roundSkip } from "./round-skip";
import { makes as sitePlan } from "./site-plan";
import { makes as sludge } from "./sludge";
import { makes as solventRub } from "./solvent-rub";
import { makes as structureFact } from "./structure-fact";
import { makes as structureZone } from "./structure-zone";
import { makes as testSkip } from "./test-skip";
import { makes as thickness } from "./thickness";
import { makes as touchUp } from "./touch-up";
import { makes as trial } from "./trial";
import { makes as trialResult } from "./trial-result";
import { makes as upkeep } from "./upkeep";
import { makes as visit } from "./visit";
import { makes as washPanel } from "./wash-panel";
import { makes as zoneVisit } from "./zone-visit";

const known: Makes<EntryKind> = {
  ...actionCheck,
  ...caseDefect,
  ...caseNote,
  ...trial,
  ...trialResult,
  ...bakeEvent,
  ...bake,
  ...baseMetal,
  ...bathCheck,
  ...bathEvent,
  ...coat,
  ...complaint,
  ...complaintAnswer,
  ...condition,
  ...extraWork,
  ...crossCut,
  ...cureTest,
  ...cureTrial,
  ...defect,
  ...dryOff,
  ...filmPlan,
  ...finding,
  ...firstPanel,
  ...gaugeCheck,
  ...lampCheck,
  ...lineStop,
  ...metalMark,
  ...outgas,
  ...ovenSurvey,
  ...disposition,
  ...touchUp,
  ...fitCheck,
  ...panel,
  ...panelFilm,
  ...panelReading,
  ...panelTest,
  ...passage,
  ...powderHeight,
  ...preFlight,
  ...prepStep,
  ...roundSkip,
  ...sludge,
  ...itemClosed,
  ...look,
  ...pullOff,
  ...solventRub,
  ...testSkip,
  ...thickness,
  ...upkeep,
  ...visit,
  ...structureZone,
  ...sitePlan,
  ...structureFact,
  ...zoneVisit,
  ...washPanel,
};
const all = new Map<string, Make<EntryKind>>(Object.entries(known) as [string, Make<EntryKind>][]);
/** How an entry is made; undefined for what nobody enters. */
export const makerOf = (entry: string): Make<EntryKind> | undefined => all.get(entry);
/** Takes in how the entries of a kind from outside are made. */
export const addMakes = (makes: { readonly [entry: string]: Make<never> }): void => {
  for (const [entry, make] of Object.entries(makes)) all.set(entry, make as unknown as Make<EntryKind>);
};
