import { actionCheck } from "./action-check";
import { bake } from "./bake";
import { bakeEvent } from "./bake-event";
import { baseMetal } from "./base-metal";
import { bathCheck } from "./bath-check";
import { bathEvent } from "./bath-event";
import { caseDefect } from "./case-defect";
import { caseNote } from "./case-note";
import { certificate } from "./certificate";
import { coat } from "./coat";
import { complaint } from "./complaint";
import { complaintAnswer } from "./complaint-answer";
import { condition } from "./condition";
import { confirmation } from "./confirmation";
import { crossCut } from "./cross-cut";
import { cureTest } from "./cure-test";
import { cureTrial } from "./cure-trial";
import { defect } from "./defect";
import { disposition } from "./disposition";
import { dryOff } from "./dry-off";
import { extraWork } from "./extra-work";
import { filmPlan } from "./film-plan";
import { finding } from "./finding";
import { firstPanel } from "./first-panel";
import { fitCheck } from "./fit-check";
import { gaugeCheck } from "./gauge-check";
import { itemClosed } from "./item-closed";
import { jobStart } from "./job-start";
import { lampCheck } from "./lamp-check";
import { lineStop } from "./line-stop";
import { look } from "./look";
import { metalMark } from "./metal-mark";
import { offer } from "./offer";
import { offerAnswer } from "./offer-answer";
import { outgas } from "./outgas";
import { ovenSurvey } from "./oven-survey";
import { panel } from "./panel";
import { panelFilm } from "./panel-film";
import { panelReading } from "./panel-reading";
import { panelTest } from "./panel-test";
import { passage } from "./passage";
import { photo } from "./photo";
import { plan } from "./plan";
import { powderHeight } from "./powder-height";
import { preFlight } from "./pre-flight";
import { prepStep } from "./prep-step";
import { pullOff } from "./pull-off";
import { roundSkip } from "./round-skip";
import { sitePlan } from "./site-plan";
import { sludge } from "./sludge";
import { solventRub } from "./solvent-rub";
import { structureFact } from "./structure-fact";
import { structureZone } from "./structure-zone";
import { testCall } from "./test-call";
import { testSkip } from "./test-skip";
import { thickness } from "./thickness";
import { touchUp } from "./touch-up";
import { trial } from "./trial";
import { trialResult } from "./trial-result";
import { upkeep } from "./upkeep";
import { visit } from "./visit";
import { washPanel } from "./wash-panel";
import { zoneVisit } from "./zone-visit";

/** Every kind of record there is, each told in its own file. */
export const allKinds = [
  passage,
  bathCheck,
  bathEvent,
  lineStop,
  roundSkip,
  washPanel,
  sludge,
  dryOff,
  outgas,
  metalMark,
  panelTest,
  upkeep,
  preFlight,
  lampCheck,
  powderHeight,
  firstPanel,
  gaugeCheck,
  baseMetal,
  filmPlan,
  thickness,
  bake,
  bakeEvent,
  ovenSurvey,
  cureTrial,
  cureTest,
  coat,
  prepStep,
  condition,
  extraWork,
  crossCut,
  solventRub,
  pullOff,
  look,
  fitCheck,
  touchUp,
  panel,
  panelReading,
  panelFilm,
  testCall,
  testSkip,
  itemClosed,
  defect,
  complaint,
  complaintAnswer,
  disposition,
  certificate,
  visit,
  structureZone,
  sitePlan,
  structureFact,
  zoneVisit,
  finding,
  confirmation,
  actionCheck,
  caseDefect,
  caseNote,
  trial,
  trialResult,
  photo,
  plan,
  offer,
  offerAnswer,
  jobStart,
] as const;
