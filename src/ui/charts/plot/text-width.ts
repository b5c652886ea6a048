/** One character of the figures' typeface, in which all of one size are alike, px: so no page need measure them. */
const CHARACTER = 8.05;
/** How wide some words are in a chart, px. */
export const textWidth = (text: string): number => CHARACTER * [...text].length;
