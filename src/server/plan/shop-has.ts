import type { ShopHas } from "@/core/plan";
import type { SetupData, SetupItem } from "../setup/setup-data";

/** What the shop can do itself, by the equipment and baths it has set up; its conversion bath is of the school the site follows. */
export function shopHas(
  equipment: ReadonlyMap<string, SetupItem<"equipment">>,
  baths: ReadonlyMap<string, SetupItem<"bath">>,
  site: SetupData<"site">,
): ShopHas {
  const roles = new Set([...baths.values()].filter((b) => !b.data.retired).map((b) => b.data.role));
  return {
    blast: [...equipment.values()].some((e) => e.data.role === "blast-room" && !e.data.retired),
    conversion: roles.has("conversion") ? site.schools.conversion : null,
    washes: roles.has("cleaner") || roles.has("conversion"),
  };
}
