import type { Say } from "./said";

export const say: Say = ({ photo: [row] = [] }) => (row && row.caption !== "photo" ? `photo: ${row.caption}` : "photo");
