import type { Metadata } from "next";
import { knownHere } from "@/server/causes/known-here";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { personOnPage } from "@/server/sign-in/person";
import { AtlasFind } from "@/ui/causes/atlas-find";
import { DefectDrawing } from "@/ui/causes/defect-drawing";
import { Fold } from "@/ui/fields/fold";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { causeShort } from "@/ui/words/causes";

export const metadata: Metadata = { title: "Atlas of defects" };

/** The commonest causes named of each. */
const NAMED = 4;

/** Every defect as it looks, what it is taken for and how to tell, its commonest causes and the first three checks. */
export default async function AtlasPage() {
  await personOnPage();
  const { knowledge } = await knownHere(database(), now());
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/causes">
              Causes
            </Link>
          }
          title="Atlas of defects"
        />
        <AtlasFind
          defects={[...knowledge.defects.values()].map((d) => ({
            id: d.id,
            words: `${d.label} ${d.plain} ${d.takenFor.map((t) => knowledge.defects.get(t.defect)?.label).join(" ")}`,
          }))}
        />
        {knowledge.families.map((family) => (
          <section key={family.id} className="ruled mt-5" aria-label={family.label} data-family>
            <h2>{family.label}</h2>
            <p className="soft m-0 mt-0.5">{family.about}</p>
            <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(min(100%,390px),1fr))] gap-x-8 gap-y-6">
              {family.defects.map((id) => {
                const defect = knowledge.defects.get(id);
                if (!defect) return null;
                const common = [...defect.causes].sort((a, b) => b[1] - a[1]).slice(0, NAMED);
                return (
                  <article key={id} id={id} data-defect={id} className="scroll-mt-4">
                    <div className="grid grid-cols-[170px_minmax(0,1fr)] gap-4 max-[480px]:grid-cols-1">
                      <DefectDrawing defect={id} label={defect.label.toLowerCase()} className="max-w-[220px]" />
                      <div>
                        <h3 className="m-0 font-bold text-[16px]">{defect.label}</h3>
                        <p className="m-0">{defect.plain}.</p>
                        {defect.takenFor.map((t) => (
                          <p key={t.defect} className="small m-0 mt-1.5">
                            <span className="soft">Taken for </span>
                            <a className="link" href={`#${t.defect}`}>
                              {knowledge.defects.get(t.defect)?.label.toLowerCase()}
                            </a>
                            <span className="soft">. </span>
                            {t.tell}.
                          </p>
                        ))}
                      </div>
                    </div>
                    <ol className="m-0 mt-2 list-decimal pl-5">
                      {defect.firstChecks.map((f) => (
                        <li key={f}>{knowledge.findings.get(f)?.check?.how ?? knowledge.findings.get(f)?.label}</li>
                      ))}
                    </ol>
                    <Fold summaryClassName="min-h-11 soft" summary="What it commonly comes of">
                      {common.map(([cause]) => (
                        <div key={cause} className="row">
                          {knowledge.causes.get(cause)?.label}
                        </div>
                      ))}
                      <p className="small soft m-0 mt-1">
                        and {defect.causes.size - common.length} more, among them{" "}
                        {[...defect.causes.keys()]
                          .filter((c) => !common.some(([x]) => x === c))
                          .slice(0, 3)
                          .map((c) => causeShort(knowledge.causes.get(c)?.label ?? c))
                          .join("; ")}
                        .
                      </p>
                    </Fold>
                  </article>
                );
              })}
            </div>
          </section>
        ))}
      </section>
      <Margin step="causes">
        <MarginBlock title="How to read it">
          <p className="small">
            Each picture is 40 by 30 mm, drawn under light from the left: what stands up is light on its left, what lies
            deep on its right. They are drawings, not photos: colours stand for film, steel and rust.
          </p>
          <p className="small">The three checks under each are the ones to make first, cheapest for what they tell.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
