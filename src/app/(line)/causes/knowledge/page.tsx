import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { CASES_BEFORE, loadKnowledge } from "@/core/diagnosis";
import { baseWeights, KNOWLEDGE_CODE, knownHere } from "@/server/causes/known-here";
import { countsOf } from "@/server/causes/watches";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { setupHistory } from "@/server/setup/setup-history";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { DefectChoice } from "@/ui/causes/defect-choice";
import { ChangeButton, WeightRow } from "@/ui/causes/weight-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { causeShort, partName } from "@/ui/words/causes";
import { conditionsSaid, ledSaid } from "@/ui/words/watches";
import { changeKnowledge, tryKnowledge } from "../../actions";

export const metadata: Metadata = { title: "What it knows" };

const signed = (w: number): string => (w > 0 ? `+${w}` : w < 0 ? `−${Math.abs(w)}` : "0");

/** The knowledge behind the causes of one defect: weights with their sentences, what the site set otherwise, what it has learned, what it watches. */
export default async function KnowledgePage({ searchParams }: { searchParams: Promise<{ defect?: string }> }) {
  const person = await personOnPage();
  if (!ofTheShop(person)) notFound();
  const line = await currentLine(person);
  const [here, { units }] = await Promise.all([knownHere(database(), line.at), preferences()]);
  const { knowledge, own } = here;
  const shipped = loadKnowledge();
  const asked = (await searchParams).defect ?? "";
  const defect = knowledge.defects.get(asked) ?? [...knowledge.defects.values()][0];
  if (!defect) notFound();
  const lead = may(person.role, "release");
  const seen = here.item?.versionId ?? null;
  const learned = baseWeights(here, defect.id);
  const confirmed = here.confirmed.get(defect.id) ?? new Map<string, number>();
  const cases = [...confirmed.values()].reduce((a, b) => a + b, 0);
  const total = [...learned.values()].reduce((a, b) => a + b, 0);
  const names = Object.fromEntries([...knowledge.causes.values()].map((c) => [c.id, c.label]));
  const [history, watches] = await Promise.all([
    setupHistory(database(), "knowledge", KNOWLEDGE_CODE),
    Promise.all(
      own.watches.map(async (watch) => ({
        watch,
        counts: await countsOf(database(), watch.when, watch.defect, line.at),
      })),
    ),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/causes">
              Causes
            </Link>
          }
          title={`What it knows: ${defect.label.toLowerCase()}`}
        >
          <DefectChoice
            now={defect.id}
            defects={[...knowledge.defects.values()].map((d): [string, string] => [d.id, d.label])}
          />
        </PageHead>
        <div className="ruled small soft mt-4 grid grid-cols-[minmax(0,1fr)_90px_90px_90px] gap-3">
          <span>cause</span>
          <span className="text-right">ships with</span>
          <span className="text-right">confirmed</span>
          <span className="text-right">counts here</span>
        </div>
        {[...learned]
          .sort((a, b) => b[1] - a[1])
          .map(([cause, weight]) => {
            const rows = knowledge.defects.get(defect.id)?.evidence.get(cause) ?? [];
            const base = shipped.defects.get(defect.id)?.causes.get(cause) ?? 0;
            const sum = [...(shipped.defects.get(defect.id)?.causes.values() ?? [])].reduce((a, b) => a + b, 0);
            return (
              <Fold
                key={cause}
                className="border-b border-rule"
                summaryClassName="min-h-11 w-full"
                summary={
                  <span className="grid w-full grid-cols-[minmax(0,1fr)_90px_90px_90px] gap-3">
                    <span>
                      <b>{names[cause]}</b>{" "}
                      <span className="faint small">
                        {partName[knowledge.defects.get(defect.id)?.parts.get(cause) ?? "mechanism"]}
                      </span>
                    </span>
                    <span className="num soft">{((100 * base) / sum).toFixed(1)} %</span>
                    <span className="num">{confirmed.get(cause) ?? "–"}</span>
                    <span className="num">{((100 * weight) / total).toFixed(1)} %</span>
                  </span>
                }
              >
                <div className="pb-3 pl-4">
                  <div className="row small soft grid-cols-[minmax(0,1fr)_76px_76px] gap-3">
                    <span>finding, and why it speaks</span>
                    <span className="text-right">when so</span>
                    <span className="text-right">when not</span>
                  </div>
                  {[...rows]
                    .sort((a, b) => Math.abs(b.whenPresent) - Math.abs(a.whenPresent))
                    .map((row) => {
                      const ours = own.weights.find(
                        (w) =>
                          w.cause === cause &&
                          w.finding === row.finding &&
                          (w.defect === null || w.defect === defect.id),
                      );
                      const was = shipped.defects
                        .get(defect.id)
                        ?.evidence.get(cause)
                        ?.find((r) => r.finding === row.finding);
                      const line = (
                        <span key={row.finding} className="grid w-full grid-cols-[minmax(0,1fr)_76px_76px] gap-3">
                          <span>
                            {knowledge.findings.get(row.finding)?.label}
                            {ours && <b className="text-watch"> set here</b>}
                            <span className="soft small block">{row.because}</span>
                          </span>
                          <span className="num">
                            {signed(row.whenPresent)}
                            {ours && was && <span className="faint small block">{signed(was.whenPresent)}</span>}
                          </span>
                          <span className="num">
                            {signed(row.whenAbsent)}
                            {ours && was && <span className="faint small block">{signed(was.whenAbsent)}</span>}
                          </span>
                        </span>
                      );
                      return lead ? (
                        <WeightRow
                          key={row.finding}
                          summary={line}
                          defect={defect.id}
                          cause={cause}
                          row={{ ...row, label: knowledge.findings.get(row.finding)?.label ?? row.finding }}
                          own={ours !== undefined}
                          seen={seen}
                          names={names}
                          tryIt={tryKnowledge}
                          keep={changeKnowledge}
                        />
                      ) : (
                        <div key={row.finding} className="row">
                          {line}
                        </div>
                      );
                    })}
                </div>
              </Fold>
            );
          })}
        <section className="ruled mt-6" aria-label="Learned here" id="learned">
          <h2>Learned here</h2>
          <p className="m-0 mt-1">
            {cases === 0
              ? "No case of this defect is confirmed yet: how common each cause is follows what ships."
              : `${countOf(cases, "confirmed case")} of this defect ${cases === 1 ? "has" : "have"} moved how common its causes are taken to be. What ships counts as ${CASES_BEFORE} cases, so that it moves slowly.`}
          </p>
          {lead && cases > 0 && (
            <div className="mt-2">
              <ChangeButton
                change={{ kind: "learn-anew", defect: defect.id }}
                seen={seen}
                button="Learn anew from today"
                ask="Cases confirmed before today will move nothing any more. They stay on record."
                keep={changeKnowledge}
              />
            </div>
          )}
        </section>
        <section className="ruled mt-6" aria-label="Watched for" id="watches">
          <h2>Watched for</h2>
          {watches.filter((w) => !w.watch.stopped).length === 0 && (
            <p className="soft mt-1">
              Nothing yet. Where the record could have foretold a confirmed case, the case offers a watch: it is taken
              up by a lead, never by itself.
            </p>
          )}
          {watches
            .filter((w) => !w.watch.stopped)
            .map(({ watch, counts }) => (
              <div key={watch.id} className="row grid-cols-[minmax(0,1fr)_auto] items-start gap-3">
                <span>
                  When {conditionsSaid(watch.when, units)}, look for{" "}
                  <b>{causeShort(knowledge.defects.get(watch.defect)?.label ?? watch.defect)}</b>.
                  <span className="soft small block">
                    {ledSaid(counts)}. From{" "}
                    <Link className="link" href={`/causes/${watch.fromCase}`}>
                      case {watch.fromCase}
                    </Link>
                    .
                  </span>
                </span>
                {lead && (
                  <ChangeButton
                    change={{ kind: "watch-stop", id: watch.id }}
                    seen={seen}
                    button="Stop watching"
                    ask="It will no longer be told on Shift."
                    keep={changeKnowledge}
                  />
                )}
              </div>
            ))}
        </section>
        <section className="ruled mt-6" aria-label="Changes">
          <h2>What was changed here</h2>
          {history.length === 0 && <p className="soft mt-1">Nothing: this site reasons with what ships.</p>}
          {history.map((h) => (
            <div key={h.versionId} className="row grid-cols-[130px_minmax(0,1fr)_auto]">
              <span className="fig faint small">{dateAndTime(h.at, line.timeZone)}</span>
              <span>{h.reason}</span>
              <span className="faint small">{h.by}</span>
            </div>
          ))}
        </section>
      </section>
      <Margin step="causes">
        <MarginBlock title="How to read it">
          <p className="small">
            Weights are natural-log odds: 3 all but settles it, 2 is strong, 1 some, 0.5 slight; below nought speaks
            against. A finding that nobody knows moves nothing.
          </p>
          <p className="small">
            A weight may be set otherwise for this site, with why. Before it is kept it is shown which past cases it
            would rank otherwise. Nothing that was confirmed changes by it.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
