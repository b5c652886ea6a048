"use server";

import { decideAndCertify } from "@/app/certificate";
import { action } from "@/server/action";
import { receiveChemical } from "@/server/baths/chemical-stock";
import { confirmCause, openCase } from "@/server/causes/case-actions";
import { keepKnowledge, previewKnowledge } from "@/server/causes/change-knowledge";
import { openZoneCase } from "@/server/causes/failing-zones";
import { holdAtRisk } from "@/server/causes/hold-at-risk";
import { savePowderPhoto } from "@/server/coat/powder-photo";
import { openLot, receiveLots, savePowder, savePowderList, saveSheet } from "@/server/coat/save-powder";
import { receiveComplaint } from "@/server/complaints/complaints";
import { saveCurePlan } from "@/server/cure/save-cure-plan";
import { saveOven } from "@/server/cure/save-oven";
import { addPhoto, photoAbility } from "@/server/field/add-photo";
import { importFile } from "@/server/imports/import-file";
import { makeRack, makeStructure } from "@/server/jobs/make-job";
import { setStart } from "@/server/plan/calendar";
import { changePlan } from "@/server/plan/change-plan";
import { answerOffer, makeOffer } from "@/server/plan/offers";
import { keepMarks } from "@/server/plan/part-marks";
import { receiveWork } from "@/server/plan/receive";
import { savePart } from "@/server/plan/save-part";
import { saveBath, startWash } from "@/server/setup/save-bath";
import { saveLine } from "@/server/setup/save-line";
import { saveBackupInterval } from "@/server/shop/backups";
import { beginLine } from "@/server/shop/begin-line";
import { saveCustomerLogo } from "@/server/shop/customer-logo";
import { keepPerson, makeCode, ownPassword, savePerson } from "@/server/shop/people";
import { saveCustomer, saveEquipment, saveInstrument, saveRates, saveSchools, saveSite } from "@/server/shop/save-shop";
import { sessionToken } from "@/server/sign-in/person";
import { signed } from "@/server/sign-in/signed";
import { saveTestPlan } from "@/server/test-plan/save-test-plan";
import { beginUpkeep, saveUpkeep } from "@/server/upkeep/save-upkeep";

/** A lead's decision on a rack, signed with their password. */
export const decide = action("release", "disposition", signed(decideAndCertify));
export const startCase = action("inspect", "case", openCase);
export const startZoneCase = action("inspect", "case", openZoneCase);
export const confirm = action("release", "confirmation", confirmCause);
/** What the site knows otherwise: a lead's, versioned; and which past cases a change would rank otherwise, before it is kept. */
export const changeKnowledge = action("release", "knowledge", keepKnowledge);
export const tryKnowledge = action("release", "knowledge", previewKnowledge);
/** Everything that passed like the rack of a case and can still be held, in one step; signed. */
export const holdRacks = action("release", "hold", signed(holdAtRisk));

/** Who works on the line photographs its strips and its metal; parts as they came in and structures are an inspector's. */
export const attachPhoto = action(photoAbility, "photo", addPhoto);
/** Step one reads and shows; step two, with `store` set, reads again and stores all or nothing. */
export const importUpload = action("inspect", "import", importFile);

/** What a customer says of a rack that has left, with its case. */
export const takeComplaint = action("inspect", "complaint", receiveComplaint);

/** Anyone on the line hangs a rack; an inspector puts a structure on record. */
export const createRack = action("log-line", "rack", makeRack);
export const createStructure = action("inspect", "structure", makeStructure);

/** Plan: a lead receives deliveries, changes and releases plans, offers options, notes the customer's answers, sets a start. */
export const receiveDelivery = action("release", "delivery", receiveWork);
export const planChange = action("release", "plan", changePlan);
export const offerOption = action("release", "offer", makeOffer);
export const noteAnswer = action("release", "answer", answerOffer);
export const pinStart = action("release", "start", setStart);
/** A part drawn and measured: a lead's to keep. */
export const keepPart = action("release", "part", savePart);
export const placeMarks = action("release", "places", keepMarks);

/** What is set up: a lead or administrator changes it, from now on and with a reason. */
export const keepBath = action("release", "bath", saveBath);
export const beginWash = action("release", "wash", startWash);
export const keepLine = action("release", "line", saveLine);
export const keepUpkeep = action("release", "upkeep", saveUpkeep);
export const beginUsualUpkeep = action("release", "upkeep", beginUpkeep);
export const keepOven = action("release", "oven", saveOven);
export const keepCurePlan = action("release", "cure plan", saveCurePlan);
export const keepPowder = action("release", "powder", savePowder);
export const keepPowderList = action("release", "powders", savePowderList);
export const attachPowderPhoto = action("release", "photo", savePowderPhoto);
export const keepSheet = action("release", "set-up sheet", saveSheet);
/** The shop itself, its customers, instruments and places: a lead's to set up. */
export const keepSite = action("release", "shop", saveSite);
/** A line as shops commonly have it, put on record as a whole. */
export const beginWholeLine = action("release", "line", beginLine);
export const keepBackupInterval = action("administer", "backup", saveBackupInterval);
export const keepRates = action("release", "rates", saveRates);
export const keepSchools = action("release", "schools", saveSchools);
export const keepCustomer = action("release", "customer", saveCustomer);
export const keepCustomerLogo = action("release", "photo", saveCustomerLogo);
export const keepTestPlan = action("release", "test plan", saveTestPlan);
export const keepInstrument = action("release", "instrument", saveInstrument);
export const keepEquipment = action("release", "equipment", saveEquipment);
/** Who is of the shop: the administrator alone makes people, locks them out and gives codes; one's own password is one's own. */
export const keepPersonOf = action("administer", "person", savePerson);
export const doToPerson = action("administer", "person", keepPerson);
export const giveCode = action("administer", "code", makeCode);
export const changePassword = action("look", "password", async (db, person, input: unknown, clock: () => Date) =>
  ownPassword(db, person, input, clock, await sessionToken()),
);
/** Who works on the line takes drums and lots into stock. */
export const takeDrum = action("log-line", "drum", receiveChemical);
export const takeLots = action("log-line", "lots", receiveLots);
export const openPowderLot = action("log-line", "lot", openLot);
