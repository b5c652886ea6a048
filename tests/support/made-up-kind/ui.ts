import type { Say } from "@/ui/kinds/said";

export const say: Say = (details) => {
  const [row] = (details as { noise_level?: { level_db: number; where_heard: string }[] }).noise_level ?? [];
  return `${row?.level_db} dB in the ${row?.where_heard}`;
};
