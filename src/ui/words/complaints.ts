import type { answeredBy, complaintWants } from "@/core/kinds";

export const wantsName: Record<(typeof complaintWants)[number], string> = {
  answer: "an answer",
  recoat: "the pieces coated again",
  replace: "new pieces",
  credit: "a credit",
  "not-said": "not said",
};
export const answeredByName: Record<(typeof answeredBy)[number], string> = {
  mail: "by e-mail",
  post: "by post",
  phone: "by telephone",
  "in-person": "in person",
};
