import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteItemAt } from "@/server/setup/setup-data";
import { backupMissing, backupsTaken } from "@/server/shop/backups";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { dateAndTime, span } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";
import { BackupForm } from "@/ui/shop/backup-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { keepBackupInterval } from "../../actions";

export const metadata: Metadata = { title: "Backup" };

const columns = [
  { key: "at", head: "taken", width: "150px", look: "fig" },
  { key: "file", head: "file", width: "minmax(0,1fr)", look: "fig small", wide: true },
  { key: "size", head: "MB", width: "90px", num: true },
  { key: "how", head: "", width: "220px", look: "soft" },
];

export default async function BackupPage() {
  const person = await personOnPage("release");
  const at = now();
  const db = database();
  const [site, taken, missing] = await Promise.all([siteItemAt(db, at), backupsTaken(db), backupMissing(db, at)]);
  const [last] = taken;
  const every = site.data.backupEveryHours;
  return (
    <>
      <section className="bench">
        <PageHead above="Data, photos, people and keys in one file" title="Backup">
          <Verdict result={missing !== null || !last ? "watch" : "in"}>
            {last ? `the newest is ${span(at.getTime() - last.at.getTime())} old` : "none was ever taken"}
          </Verdict>
        </PageHead>
        <ShopTabs here="backup" people={may(person.role, "administer")} />
        <p className="mt-4 max-w-[760px]">
          {every === null
            ? "None is taken by itself. On the machine Sorrel runs on: npm run backup -- --own"
            : `One is taken by itself every ${every % 24 === 0 ? (every === 24 ? "day" : `${every / 24} days`) : `${every} hours`} while Sorrel runs, into backups in its data directory. Copy it to another machine: a backup on the same disk is lost with it.`}
        </p>
        {may(person.role, "administer") && (
          <BackupForm key={site.versionId} seen={site.versionId} everyHours={every} save={keepBackupInterval} />
        )}
        <section className="ruled mt-6" aria-label="Backups taken">
          <h2>Taken</h2>
          <List
            name="Backups"
            empty="None yet. Take one today, and bring it back once on another machine before you need it."
            columns={columns}
            rows={taken.map((b) => ({
              key: b.id,
              cells: { at: dateAndTime(b.at, site.data.timeZone) },
              values: {
                at: b.at.toISOString(),
                file: b.file,
                size: b.megabytes,
                how: `${b.scheduled ? "by itself" : "by hand"}${b.encrypted ? ", encrypted" : ", not encrypted"}`,
              },
            }))}
          />
        </section>
      </section>
      <Margin step="shift">
        <MarginBlock title="Encrypted or not">
          <p className="small">
            With SORREL_BACKUP_PASSPHRASE set where Sorrel is started the file is encrypted: keep the passphrase apart
            from it. Without one it holds people and keys in the open: lock it away.
          </p>
        </MarginBlock>
        <MarginBlock title="Bringing one back">
          <p className="small">
            npm run restore, on a machine that has never seen the shop. It compares every table with what was backed up
            and verifies every seal before it says Restored; without the keys it says so before it writes.
            docs/backup.md tells it step by step.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
