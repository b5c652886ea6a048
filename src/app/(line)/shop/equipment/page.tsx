import type { Metadata } from "next";
import { isPlace, wantsStripping } from "@/core/site";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { plainly, sides } from "@/ui/format";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { EquipmentForm } from "@/ui/shop/equipment-form";
import { SetupList } from "@/ui/shop/setup-list";
import { equipmentRoleName } from "@/ui/words/people";
import { keepEquipment } from "../../actions";

export const metadata: Metadata = { title: "Equipment" };

export default async function EquipmentPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, { timeZone }, versions, { units }] = await Promise.all([
    setupAt(database(), "equipment", at),
    siteAt(database(), at),
    versionsOfKind(database(), "equipment"),
    preferences(),
  ]);
  return (
    <SetupList
      here="equipment"
      title="Equipment"
      above="Where a part must fit, what carries it, what powder is put on with"
      people={may(person.role, "administer")}
      empty="Nothing yet. Put booth, washer and oven on record below with their room: a part that fits nowhere is then known before it is taken in. Guns, hooks and air have their upkeep and history here too."
      items={all.values()}
      grid="grid-cols-[110px_minmax(0,1fr)_110px_220px] max-[700px]:grid-cols-[96px_minmax(0,1fr)]"
      line={({ data }) => (
        <>
          <span>{data.name}</span>
          <span className="soft max-[700px]:hidden">{equipmentRoleName[data.role]}</span>
          <span className="fig soft max-[700px]:hidden">
            {data.insideMm
              ? sides(data.insideMm, units)
              : data.mostKg !== null
                ? `carries ${plainly(data.mostKg, "mass", units)}`
                : isPlace(data.role)
                  ? "not sized"
                  : ""}
            {data.retired && " no longer used"}
            {wantsStripping(data.facts) && <Verdict result="watch">strip it</Verdict>}
          </span>
        </>
      )}
      open={(item) => (
        <>
          <Link className="btn my-2" href={`/shop/equipment/${encodeURIComponent(item.code)}`}>
            Its page: upkeep, history, what went through it
          </Link>
          <EquipmentForm
            key={item.versionId}
            known={{ code: item.code, seen: item.versionId, ...item.data }}
            save={keepEquipment}
          />
        </>
      )}
      more={<EquipmentForm known={null} save={keepEquipment} />}
      changed={{ versions, timeZone }}
    />
  );
}
