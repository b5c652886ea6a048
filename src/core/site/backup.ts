const HOUR_MS = 3_600_000;
/** Without one for so long it is said where the shift begins. */
export const BACKUP_SAID_AFTER_DAYS = 7;

/** Whether the next backup is due: by its interval since the last one, or since the shop began. */
export const backupDue = (everyHours: number | null, lastAt: Date | null, now: Date): boolean =>
  everyHours !== null && (lastAt === null || now.getTime() - lastAt.getTime() >= everyHours * HOUR_MS);

/** Whole days without a backup, where they are so many that it is to be said; null before. */
export function daysWithoutBackup(lastAt: Date | null, begunAt: Date, now: Date): number | null {
  const days = Math.floor((now.getTime() - (lastAt ?? begunAt).getTime()) / (24 * HOUR_MS));
  return days >= BACKUP_SAID_AFTER_DAYS ? days : null;
}
