import type { Ability } from "@/core/kinds";

export type TourStep = { readonly title: string; readonly text: string; readonly href: string; readonly may: Ability };

/** A first shift, in the order a day has: what to look at, what to try, and where. Each only for who may do it. */
export const tourSteps: readonly TourStep[] = [
  {
    title: "What needs a hand now",
    text: "Shift lists what is due, the most pressing on top: pulls, bath checks, bare metal, held racks. Each line opens where it is done. Nothing drops off it by age.",
    href: "/",
    may: "look",
  },
  {
    title: "The line above every page",
    text: "From Plan to Field, each stage with the racks that wait there. Press a stage to see its racks, a rack to see its thread.",
    href: "/racks",
    may: "look",
  },
  {
    title: "One line for most of it",
    text: "Press / and type as you speak: a rack’s number goes to it, “tank 3 ph 5.1” records a check, “rack 12 dft f1 72 75 71” a spot. It says what it understood before it keeps anything.",
    href: "/",
    may: "log-line",
  },
  {
    title: "A round of the baths",
    text: "Tank by tank, on a tablet at the tank. A value out of its window says what to add, by your own bath’s volume, and what that does.",
    href: "/pretreat/round",
    may: "log-line",
  },
  {
    title: "Metal before powder",
    text: "Open a rack and its Prepare tab: what is asked of this metal, in order. A step that is missed is asked for, or set aside with a reason that stands.",
    href: "/prepare",
    may: "log-line",
  },
  {
    title: "Powder on",
    text: "The booth asks for earth, gun and lot before the first coat, and compares with the last good one. The sheet’s own limits stand beside each field.",
    href: "/coat",
    may: "log-line",
  },
  {
    title: "Into the oven, and out in time",
    text: "A load is closed with its racks and places; its trace foretells when the slowest metal is cured. Take it from the recorder, or import its file.",
    href: "/cure",
    may: "log-line",
  },
  {
    title: "Film, spot by spot",
    text: "Read the ringed spot, with a gauge that streams or types, or by hand. A reading unlike its neighbours is asked about before it counts.",
    href: "/test",
    may: "inspect",
  },
  {
    title: "Look, cut, rub",
    text: "On a rack’s Bench tab: how closely each zone is looked at, then the cross-cut and what else the job asks. Nothing found is a record too.",
    href: "/test",
    may: "inspect",
  },
  {
    title: "Decide, and sign",
    text: "Release says the whole verdict in one sentence, what is missing, and what would change it. A signature keeps what it was made on.",
    href: "/release",
    may: "release",
  },
  {
    title: "A slip of the pen",
    text: "Nothing is edited or deleted. A record that is wrong is corrected by a new one with its reason; both stand, and both are seen.",
    href: "/records",
    may: "log-line",
  },
  {
    title: "When something went wrong",
    text: "From a defect, or a customer’s complaint, a case: what the record knows comes first, what it cannot know is asked, and a person confirms the cause.",
    href: "/causes",
    may: "look",
  },
];
