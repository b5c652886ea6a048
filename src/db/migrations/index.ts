import type { Migration, MigrationProvider } from "kysely";
import * as record from "./2026-11-23T140000-record";
import * as people from "./2026-11-23T140100-people";
import * as plan from "./2026-11-23T180000-plan";
import * as wash from "./2026-11-23T220000-wash";
import * as washProof from "./2026-11-23T230000-wash-proof";
import * as metalProof from "./2026-11-24T020000-metal-proof";
import * as upkeep from "./2026-11-24T050000-upkeep";
import * as coatAndFilm from "./2026-11-24T060000-coat-and-film";
import * as filmFaces from "./2026-11-24T070000-film-faces";
import * as filmPlan from "./2026-11-24T080000-film-plan";
import * as readingsBeforeRecord from "./2026-11-24T090000-readings-before-record";
import * as cure from "./2026-11-28T070000-cure";
import * as cureTest from "./2026-11-28T083000-cure-test";
import * as cureSections from "./2026-11-28T100000-cure-sections";
import * as oneClock from "./2026-11-28T180000-one-clock";
import * as rackStanding from "./2026-11-28T190000-rack-standing";
import * as heldFor from "./2026-11-28T210000-held-for";
import * as pullOff from "./2026-11-28T220000-pull-off";
import * as fieldShares from "./2026-11-28T230000-field-shares";
import * as looksAndOrder from "./2026-11-28T233000-looks-and-order";
import * as lookAgain from "./2026-11-29T010000-look-again";

import * as peopleKept from "./2026-11-29T130000-people-kept";
import * as complaintsAndBackups from "./2026-11-29T160000-complaints-and-backups";
import * as certificateNumber from "./2026-11-29T170000-certificate-number";
import * as lookAndPanels from "./2026-11-29T190000-look-and-panels";
import * as decisionsByPiece from "./2026-11-29T210000-decisions-by-piece";
import * as crossCutPhoto from "./2026-11-29T220000-cross-cut-photo";
import * as testPlan from "./2026-11-29T230000-test-plan";
import * as photoShows from "./2026-11-30T000000-photo-shows";
import * as panelFilm from "./2026-11-30T010000-panel-film";
import * as extraWork from "./2026-11-30T020000-extra-work";
import * as fieldZones from "./2026-11-30T030000-field-zones";
import * as actionCheck from "./2026-11-30T040000-action-check";
import * as zonePhotos from "./2026-11-30T050000-zone-photos";
import * as causes from "./2026-11-30T060000-causes";

const migrations: Record<string, Migration> = {
  "2026-11-23T140000-record": record,
  "2026-11-23T140100-people": people,
  "2026-11-23T180000-plan": plan,
  "2026-11-23T220000-wash": wash,
  "2026-11-23T230000-wash-proof": washProof,
  "2026-11-24T020000-metal-proof": metalProof,
  "2026-11-24T050000-upkeep": upkeep,
  "2026-11-24T060000-coat-and-film": coatAndFilm,
  "2026-11-24T070000-film-faces": filmFaces,
  "2026-11-24T080000-film-plan": filmPlan,
  "2026-11-24T090000-readings-before-record": readingsBeforeRecord,
  "2026-11-28T070000-cure": cure,
  "2026-11-28T083000-cure-test": cureTest,
  "2026-11-28T100000-cure-sections": cureSections,
  "2026-11-28T180000-one-clock": oneClock,
  "2026-11-28T190000-rack-standing": rackStanding,
  "2026-11-28T210000-held-for": heldFor,
  "2026-11-28T220000-pull-off": pullOff,
  "2026-11-28T230000-field-shares": fieldShares,
  "2026-11-28T233000-looks-and-order": looksAndOrder,
  "2026-11-29T010000-look-again": lookAgain,
  "2026-11-29T130000-people-kept": peopleKept,
  "2026-11-29T160000-complaints-and-backups": complaintsAndBackups,
  "2026-11-29T170000-certificate-number": certificateNumber,
  "2026-11-29T190000-look-and-panels": lookAndPanels,
  "2026-11-29T210000-decisions-by-piece": decisionsByPiece,
  "2026-11-29T220000-cross-cut-photo": crossCutPhoto,
  "2026-11-29T230000-test-plan": testPlan,
  "2026-11-30T000000-photo-shows": photoShows,
  "2026-11-30T010000-panel-film": panelFilm,
  "2026-11-30T020000-extra-work": extraWork,
  "2026-11-30T030000-field-zones": fieldZones,
  "2026-11-30T040000-action-check": actionCheck,
  "2026-11-30T050000-zone-photos": zonePhotos,
  "2026-11-30T060000-causes": causes,
};
/** A fixed list rather than a folder scan, so that it loads alike under tsx, Vitest and Next. */
export const migrationProvider: MigrationProvider = { getMigrations: async () => migrations };
