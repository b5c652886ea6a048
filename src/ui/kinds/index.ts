import type { RecordKind } from "@/core/kinds";
import { say as actionCheck } from "./action-check";
import { say as bake } from "./bake";
import { say as bakeEvent } from "./bake-event";
import { say as baseMetal } from "./base-metal";
import { say as bathCheck } from "./bath-check";
import { say as bathEvent } from "./bath-event";
import { say as caseDefect } from "./case-defect";
import { say as caseNote } from "./case-note";
import { say as certificate } from "./certificate";
import { say as coat } from "./coat";
import { say as complaint } from "./complaint";
import { say as complaintAnswer } from "./complaint-answer";
import { say as condition } from "./condition";
import { say as confirmation } from "./confirmation";
import { say as crossCut } from "./cross-cut";
import { say as cureTest } from "./cure-test";
import { say as cureTrial } from "./cure-trial";
import { say as defect } from "./defect";
import { say as disposition } from "./disposition";
import { say as dryOff } from "./dry-off";
import { say as extraWork } from "./extra-work";
import { say as filmPlan } from "./film-plan";
import { say as finding } from "./finding";
import { say as firstPanel } from "./first-panel";
import { say as fitCheck } from "./fit-check";
import { say as gaugeCheck } from "./gauge-check";
import { say as itemClosed } from "./item-closed";
import { say as jobStart } from "./job-start";
import { say as lampCheck } from "./lamp-check";
import { say as lineStop } from "./line-stop";
import { say as look } from "./look";
import { say as metalMark } from "./metal-mark";
import { say as offer } from "./offer";
import { say as offerAnswer } from "./offer-answer";
import { say as outgas } from "./outgas";
import { say as ovenSurvey } from "./oven-survey";
import { say as panel } from "./panel";
import { say as panelFilm } from "./panel-film";
import { say as panelReading } from "./panel-reading";
import { say as panelTest } from "./panel-test";
import { say as passage } from "./passage";
import { say as photo } from "./photo";
import { say as plan } from "./plan";
import { say as powderHeight } from "./powder-height";
import { say as preFlight } from "./pre-flight";
import { say as prepStep } from "./prep-step";
import { say as pullOff } from "./pull-off";
import { say as roundSkip } from "./round-skip";
import { type SaidDetails, type Say, type Saying, words } from "./said";
import { say as sitePlan } from "./site-plan";
import { say as sludge } from "./sludge";
import { say as solventRub } from "./solvent-rub";
import { say as structureFact } from "./structure-fact";
import { say as structureZone } from "./structure-zone";
import { say as testCall } from "./test-call";
import { say as testSkip } from "./test-skip";
import { say as thickness } from "./thickness";
import { say as touchUp } from "./touch-up";
import { say as trial } from "./trial";
import { say as trialResult } from "./trial-result";
import { say as upkeep } from "./upkeep";
import { say as visit } from "./visit";
import { say as washPanel } from "./wash-panel";
import { say as zoneVisit } from "./zone-visit";

/** The sentence of each kind of record, made from its data in the reader's units. */
const known: Record<RecordKind, Say> = {
  passage,
  "bath-check": bathCheck,
  "bath-event": bathEvent,
  "line-stop": lineStop,
  "round-skip": roundSkip,
  "wash-panel": washPanel,
  sludge,
  "dry-off": dryOff,
  outgas,
  "metal-mark": metalMark,
  "panel-test": panelTest,
  upkeep,
  "pre-flight": preFlight,
  "lamp-check": lampCheck,
  "powder-height": powderHeight,
  "first-panel": firstPanel,
  "gauge-check": gaugeCheck,
  "base-metal": baseMetal,
  "film-plan": filmPlan,
  thickness,
  bake,
  "bake-event": bakeEvent,
  "oven-survey": ovenSurvey,
  "cure-trial": cureTrial,
  "cure-test": cureTest,
  coat,
  "prep-step": prepStep,
  condition,
  "extra-work": extraWork,
  "cross-cut": crossCut,
  "test-call": testCall,
  "test-skip": testSkip,
  "item-closed": itemClosed,
  look,
  "fit-check": fitCheck,
  "touch-up": touchUp,
  panel,
  "panel-film": panelFilm,
  "panel-reading": panelReading,
  "pull-off": pullOff,
  "solvent-rub": solventRub,
  defect,
  complaint,
  "complaint-answer": complaintAnswer,
  disposition,
  certificate,
  visit,
  "structure-zone": structureZone,
  "site-plan": sitePlan,
  "structure-fact": structureFact,
  "zone-visit": zoneVisit,
  finding,
  confirmation,
  "action-check": actionCheck,
  "case-defect": caseDefect,
  "case-note": caseNote,
  trial,
  "trial-result": trialResult,
  photo,
  plan,
  offer,
  "offer-answer": offerAnswer,
  "job-start": jobStart,
};
const all = new Map<string, Say>(Object.entries(known));
/** Takes in how a kind from outside is said. */
export const addSay = (kind: string, say: Say): void => {
  all.set(kind, say);
};
/** A record in a few words; of a kind that is not known here its name alone. */
export const recordSentence = (kind: string, details: SaidDetails, saying: Saying): string =>
  all.get(kind)?.(details, saying) ?? words(kind);
/** How a kind is called in a list of kinds. */
export const kindName = (kind: string): string => words(kind);
