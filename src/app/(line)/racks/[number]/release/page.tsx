import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { ovenSlug } from "@/core/cure";
import { loadKnowledge } from "@/core/diagnosis";
import { isReleased } from "@/core/line";
import { coolingOf } from "@/server/cure/cooling";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { judgeRack, type RackVerdict } from "@/server/rack/judge-rack";
import { loadRack, newestOf, wholeDecision } from "@/server/rack/load-rack";
import { openOf } from "@/server/rack/open-of";
import { changedSinceDecision, itemKey, signedItems } from "@/server/release/changed-since";
import { judgedByPiece } from "@/server/release/judged-by-piece";
import { lookAgainOpen } from "@/server/release/look-again";
import { touchPlaces } from "@/server/release/touch-places";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { conditionsWhenPassed } from "@/server/trace/conditions";
import { StartCase } from "@/ui/causes/start-case";
import { Fold } from "@/ui/fields/fold";
import { clock, countOf, dateAndTime, withUnit } from "@/ui/format";
import { DefectForm } from "@/ui/forms/defect-form";
import { FocusOnArrival } from "@/ui/frame/focus-on-arrival";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { OpenItems } from "@/ui/rack/open-items";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { DecideForm, type Gaps } from "@/ui/release/decide-form";
import { LookedAgain } from "@/ui/release/looked-again";
import { PartsDecided } from "@/ui/release/parts-decided";
import { TouchUpForm } from "@/ui/release/touch-up-form";
import { VerdictRows } from "@/ui/release/verdict-rows";
import { decisionWords } from "@/ui/words/decisions";
import { filmRequired } from "@/ui/words/reasons";
import { itemName, itemOut, itemSentence, namesOf, notAskedName } from "@/ui/words/verdict";
import { sentenceForCustomer, whatWouldChange } from "@/ui/words/whole";
import { decide, startCase } from "../../../actions";

export const metadata: Metadata = { title: "Release" };

export default async function ReleasePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, { units }, conditions] = await Promise.all([
    currentLine(person),
    preferences(),
    conditionsWhenPassed(database(), [rack.id], rack.hungAt),
  ]);
  const verdict = judgeRack(rack, conditions);
  const cooling = await coolingOf(database(), rack, line.at);
  const decided = wholeDecision(rack.current);
  const row = decided?.details.disposition?.[0];
  const released = isReleased(row?.decision);
  const parts = rack.current.filter((r) => r.details.disposition?.[0]?.pieces != null);
  const byPiece = judgedByPiece(rack, conditions);
  const word = {
    in: "Can be released",
    watch: "Can be released, with notes",
    out: itemOut(verdict.limiting),
    unknown: "Not all known",
  }[verdict.result];
  const warm = cooling?.state === "warm";
  const gapsOf = ({ out, missing }: RackVerdict): Gaps => ({
    gaps: [...out, ...missing].map((i) => ({ name: itemName(i), ...itemSentence(i, units) })),
    whyNot:
      out.length + missing.length > 0
        ? [
            out.length > 0 ? `out: ${namesOf(out).toLowerCase()}` : "",
            missing.length > 0 ? `not known: ${namesOf(missing).toLowerCase()}` : "",
          ]
            .filter(Boolean)
            .join("; ")
        : warm
          ? "Accept waits until the metal is cool: read it, or come back when it is"
          : "",
  });
  const change = whatWouldChange(verdict);
  const places = may(person.role, "log-line") ? touchPlaces(rack) : [];
  const changed = changedSinceDecision(row, verdict.items);
  const defects = rack.current.filter((r) => r.base.kind === "defect");
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.customer} · {rack.part.data.name}, {countOf(rack.pieces.length, "piece")}
            </>
          }
          title="Verdict of the whole"
        >
          <Verdict result={verdict.result}>{word}</Verdict>
          <div className="small soft">
            weakest evidence: <Grade grade={verdict.grade} />
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="release" standing={rack.standing} />
        <FocusOnArrival on="#bench form input" />
        <VerdictRows items={verdict.items} units={units} />
        <OpenItems rack={rack.number} open={openOf(rack)} mayLog={may(person.role, "log-line")} />
        {verdict.notAsked.length > 0 && (
          <p className="small soft m-0 mt-2">Not asked: {verdict.notAsked.map(notAskedName).join(", ")}.</p>
        )}
        {cooling && (
          <p className="m-0 mt-3 flex flex-wrap items-center gap-x-3">
            <Verdict result={cooling.state !== "cool" ? "watch" : cooling.grade === "measured" ? "in" : "unknown"}>
              {cooling.state !== "cool"
                ? "Still warm"
                : cooling.grade === "measured"
                  ? "Cool enough to pack"
                  : "Cool by now, not read"}
            </Verdict>
            <span>
              {cooling.grade === "measured" ? "Metal read at " : "No reading under the limit: by still air about "}
              <b className="fig">{withUnit(cooling.nowC, "temperature", units)}</b>, packed under{" "}
              {withUnit(cooling.handleBelowC, "temperature", units)}
              {cooling.coolAt && (
                <>
                  , cool about <b className="fig">{clock(cooling.coolAt, line.timeZone)}</b>;{" "}
                  <Link
                    className="link"
                    href={`/cure/loads/${ovenSlug(cooling.oven)}/${encodeURIComponent(cooling.load)}?closed=${cooling.closedAt.getTime()}`}
                  >
                    read the metal
                  </Link>
                </>
              )}
            </span>
            <Grade grade={cooling.grade} />
          </p>
        )}
        <p className="mt-3 max-w-[720px]">
          <b>In a sentence:</b> {sentenceForCustomer(verdict)}
        </p>
        {change.length > 0 && (
          <Fold summary={<>What would change it</>} summaryClassName="min-h-11">
            {change.map(({ item, how }) => (
              <p key={itemKey(item)} className="m-0">
                <b>{itemName(item)}</b>: {how}
              </p>
            ))}
          </Fold>
        )}
        <PartsDecided rack={rack.number} parts={parts} timeZone={line.timeZone} />
        {row && decided && (
          <p className="mt-4">
            <Verdict result={released ? "in" : "out"}>{decisionWords[row.decision] ?? row.decision}</Verdict> by{" "}
            {row.signed_name}, {dateAndTime(decided.base.happened_at, line.timeZone)}: {row.note}
            {released && (
              <>
                {" "}
                ·{" "}
                <a className="link" href={`/api/racks/${rack.number}/certificate.pdf`}>
                  Certificate, PDF
                </a>{" "}
                <a className="link" href={`/api/racks/${rack.number}/certificate.json`}>
                  JSON
                </a>
              </>
            )}
          </p>
        )}
        {changed.length > 0 && (
          <section className="mt-3 border-watch border-l-4 pl-3" aria-label="Look again">
            <h2>Look again: not as it was signed</h2>
            {changed.map(({ was, is }) => (
              <p key={itemKey(is)} className="m-0">
                <b>{itemName(is)}</b>:{" "}
                {was
                  ? `signed as ${itemSentence(was, units).word.toLowerCase()}`
                  : signedItems(row?.verdict)
                    ? "not there when it was signed"
                    : "how it stood when it was signed is not on record"}
                , now <Verdict result={is.result}>{itemSentence(is, units).word}</Verdict>{" "}
                <span className="soft">{itemSentence(is, units).text}</span>
              </p>
            ))}
            <p className="small soft m-0">
              The certificate stays as it was signed; a lead decides anew where what came since calls for it.
            </p>
            {may(person.role, "release") && (await lookAgainOpen(database(), rack.id)) && (
              <LookedAgain rack={rack.number} />
            )}
          </section>
        )}
        {may(person.role, "release") ? (
          <div className="mt-5">
            <h2 className="mb-2">{row ? "Decide anew" : "Decide"}</h2>
            <DecideForm
              rack={rack.number}
              seen={newestOf(rack.current, "disposition")?.base.id ?? null}
              warm={warm}
              whole={gapsOf(verdict)}
              kinds={byPiece.verdicts.map(gapsOf)}
              byPiece={byPiece.of}
              pieces={rack.pieces.map((p) => ({
                position: p.position,
                serial: p.serial,
                gone:
                  parts.find((r) => r.details.disposition_piece?.some((x) => x.piece_id === p.id))?.details
                    .disposition?.[0]?.decision ?? null,
              }))}
              notes={verdict.items
                .filter((i) => i.result === "watch")
                .map((i) => `${itemName(i)}: ${itemSentence(i, units).text}`)}
              decide={decide}
            />
          </div>
        ) : (
          <p className="soft mt-5">A lead decides.</p>
        )}
        {places.length > 0 && !released && (
          <div className="mt-6">
            <TouchUpForm rack={rack.number} places={places} />
          </div>
        )}
        {may(person.role, "inspect") && (
          <Fold
            className="mt-7"
            open={defects.length > 0}
            summaryClassName="min-h-11 font-bold"
            summary={<>Defects on this rack: {defects.length}</>}
          >
            {defects.map((r) => {
              const d = r.details.defect?.[0];
              return d ? (
                <div key={r.base.id} className="row grid-cols-[minmax(0,1fr)_auto] items-center">
                  <span>
                    <b>{d.defect.replaceAll("-", " ")}</b>
                    {d.face ? `, face ${d.face}` : ""}
                    {d.pieces_affected !== null ? `, ${d.pieces_affected} of ${d.pieces_seen} pieces` : ""}. {d.note}
                  </span>
                  <StartCase defectRecordId={r.base.id} zone={d.face ? `Face ${d.face}` : "Panel"} start={startCase} />
                </div>
              ) : null;
            })}
            <DefectForm
              on={{ rack: rack.number, faces: rack.part.data.faces.map((f) => ({ ...f, spots: [] })) }}
              defects={[...loadKnowledge().defects.values()].map(({ id, label, plain }) => ({ id, label, plain }))}
            />
          </Fold>
        )}
      </section>
      <Margin step="release">
        <MarginBlock title="What is asked">
          <p>
            Film {filmRequired(rack.job.requirement.film, units)}; cross-cut grade{" "}
            {rack.job.requirement.adhesionWorstIso} or better; cure by {rack.job.requirement.cureDecidedBy}.
          </p>
        </MarginBlock>
        <MarginBlock title="On paper">
          <p className="m-0">
            <a className="link" href={`/api/racks/${rack.number}/report.pdf`}>
              Inspection report, PDF
            </a>
            <br />
            <span className="small soft">Sketch, film, faults, trace, tests and photos as they stand now.</span>
          </p>
        </MarginBlock>
        <MarginBlock title="Decisions">
          {may(person.role, "inspect") && rack.thread.some((r) => r.base.kind === "disposition") && (
            <p className="no-print m-0">
              <Link className="btn" href={`/causes/complaints/new?rack=${encodeURIComponent(rack.number)}`}>
                A customer complains of it
              </Link>
            </p>
          )}
          {rack.thread
            .filter((r) => r.base.kind === "disposition")
            .map((r) => (
              <div key={r.base.id} className="row">
                <span>
                  <b>{decisionWords[r.details.disposition?.[0]?.decision ?? ""]}</b>: {r.details.disposition?.[0]?.note}
                  <br />
                  <span className="faint small">
                    {r.details.disposition?.[0]?.signed_name}, {dateAndTime(r.base.happened_at, line.timeZone)}
                  </span>
                </span>
              </div>
            ))}
          {!row && <p className="soft">None yet.</p>}
        </MarginBlock>
      </Margin>
    </>
  );
}
