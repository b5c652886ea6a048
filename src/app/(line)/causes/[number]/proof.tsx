import { effectCheck, oneSidedP } from "@/core/comparison";
import type { TiedTo } from "@/core/kinds";
import { type Trial, trialsOf } from "@/server/causes/case-thread";
import { sinceDone } from "@/server/causes/corrective-actions";
import type { CaseFile } from "@/server/causes/load-case";
import { countsOf, foretoldBy } from "@/server/causes/watches";
import { database } from "@/server/database";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { may, type Person } from "@/server/sign-in/roles";
import { ActionForm } from "@/ui/causes/action-form";
import { ConfirmForm } from "@/ui/causes/confirm-form";
import { TrialForm, TrialResultForm } from "@/ui/causes/trials";
import { ChangeButton } from "@/ui/causes/weight-form";
import { dateAndTime, dayMonthYear } from "@/ui/format";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { actionStateName, actionStateResult, sharedSaid } from "@/ui/words/actions";
import { causeShort, tiedToName } from "@/ui/words/causes";
import { conditionsSaid, ledSaid } from "@/ui/words/watches";
import { changeKnowledge, confirm } from "../../actions";

type Props = { person: Person; file: CaseFile; at: Date; timeZone: string };
export const dayOf = (day: unknown): string => dayMonthYear(new Date(`${String(day).slice(0, 10)}T12:00:00Z`), "UTC");

type Acting = { readonly cause: string; readonly zone: string; readonly sharePercent: number | null };
/** The causes of a confirmation: of one from before several were asked, the one. */
export const actingOf = (c: { readonly cause: string; readonly causes: unknown }): readonly Acting[] =>
  Array.isArray(c.causes) ? (c.causes as Acting[]) : [{ cause: c.cause, zone: "", sharePercent: null }];
export const chainOf = (c: { readonly chain: unknown }): readonly string[] =>
  Array.isArray(c.chain) ? (c.chain as unknown[]).map(String) : [];

/** What was confirmed: causes with where and how much, proof, the steps behind, the action and what it changes. */
export function Confirmed({ file, timeZone }: { file: CaseFile; timeZone: string }) {
  const c = file.confirmation;
  if (!c) return null;
  const label = (cause: string) => file.known.knowledge.causes.get(cause)?.label ?? cause;
  const chain = chainOf(c);
  return (
    <>
      <p className="soft small m-0">
        Confirmed by {c.by_user}, {dateAndTime(c.happened_at, timeZone)}
      </p>
      {actingOf(c).map((a, i) => (
        <p key={`${a.cause} ${a.zone}`} className="m-0 mt-1">
          <b>{i === 0 ? label(a.cause) : `and ${causeShort(label(a.cause))}`}</b>
          {a.zone ? `, ${a.zone}` : ""}
          {a.sharePercent !== null ? `, ${Math.round(a.sharePercent)} % of it` : ""}
        </p>
      ))}
      <p className="m-0 mt-1">{c.proof}</p>
      {chain.length > 0 && (
        <ol className="mt-2 mb-0 list-decimal pl-5">
          {chain.map((step) => (
            <li key={step} className="mt-0.5">
              {step}
            </li>
          ))}
        </ol>
      )}
      <p className="soft mt-2 mb-0">
        Now: {c.correction || "–"}. For good: {c.corrective_action} ({c.who}
        {c.due_on ? `, by ${dayOf(c.due_on)}` : ""})
        {c.tied_to
          ? `; changes ${causeShort(tiedToName[c.tied_to as TiedTo] ?? c.tied_to)}${c.tied_code ? ` ${c.tied_code}` : ""}`
          : ""}
        .
      </p>
    </>
  );
}

/** Proof: trials with what was expected and seen, the confirmation, and whether what was done for good worked. */
export async function Proof({ person, file, at, timeZone }: Props) {
  const [trials, sheets, baths, tasks, parts] = await Promise.all([
    trialsOf(database(), file.id),
    setupAt(database(), "setup-sheet", at),
    setupAt(database(), "bath", at),
    setupAt(database(), "upkeep", at),
    setupAt(database(), "part", at),
  ]);
  const open = file.diagnosis.causes.filter((c) => c.role !== "ruled-out");
  const pairs = (items: ReadonlyMap<string, { readonly code: string }>) =>
    [...items.values()].map((i): [string, string] => [i.code, i.code]);
  return (
    <section className="ruled mt-6" id="proof" aria-label="Proof and action">
      <h2>Proof and action</h2>
      {trials.length === 0 && !file.confirmation && (
        <p className="soft mt-1">
          Nothing is proved yet. A small trial proves more than a sentence: repeat the cause on some panels, take it
          away on others, count both.
        </p>
      )}
      {trials.map((t) => (
        <TrialSeen key={t.id} trial={t} person={person} file={file} timeZone={timeZone} />
      ))}
      {file.confirmation && (
        <div className="mt-2">
          <Confirmed file={file} timeZone={timeZone} />
          <Action person={person} file={file} at={at} timeZone={timeZone} />
        </div>
      )}
      <Foretold person={person} file={file} at={at} />
      <div className="flex flex-wrap items-start gap-x-3">
        {may(person.role, "inspect") && open.length > 0 && (
          <TrialForm caseNumber={file.number} causes={open.map((c) => ({ id: c.cause, label: c.label }))} />
        )}
        {may(person.role, "release") && open.length > 0 && (
          <ConfirmForm
            caseNumber={file.number}
            causes={open.map((c) => ({ id: c.cause, label: c.label }))}
            acting={open.filter((c) => c.role === "contributing").map((c) => c.cause)}
            places={file.zones.map((z) => z.zone)}
            targets={{
              "setup-sheet": pairs(sheets),
              "bath-window": pairs(baths),
              interval: pairs(tasks),
              part: pairs(parts),
            }}
            seen={file.confirmation?.record_id ?? null}
            confirm={confirm}
          />
        )}
      </div>
    </section>
  );
}

/** What the record could have foretold a confirmed case by: offered as a watch, taken up by a lead, never by itself. */
async function Foretold({ person, file, at }: { person: Person; file: CaseFile; at: Date }) {
  const when = foretoldBy(file);
  if (!when) return null;
  const [counts, { units }] = await Promise.all([countsOf(database(), when, file.defect, at), preferences()]);
  const watched = file.known.own.watches.some(
    (w) => !w.stopped && w.defect === file.defect && JSON.stringify(w.when) === JSON.stringify(when),
  );
  return (
    <div className="mt-3 border-l-4 border-rule-strong pl-3">
      <b>The record could have foretold it</b>
      <p className="m-0">
        When {conditionsSaid(when, units)}, look for {causeShort(file.defectLabel)}.{" "}
        <span className="soft">On record, {ledSaid(counts)}.</span>
      </p>
      {watched ? (
        <p className="soft m-0">It is watched for on Shift.</p>
      ) : may(person.role, "release") ? (
        <ChangeButton
          change={{ kind: "watch", defect: file.defect, cause: file.confirmation?.cause, when, fromCase: file.number }}
          seen={file.known.item?.versionId ?? null}
          button="Watch for this on Shift"
          ask="Racks in the shop that meet it will be told on Shift, with how often it led to this and how often not."
          reason={`foretold by case ${file.number}`}
          keep={changeKnowledge}
        />
      ) : null}
    </div>
  );
}

function TrialSeen({
  trial: t,
  person,
  file,
  timeZone,
}: {
  trial: Trial;
  person: Person;
  file: CaseFile;
  timeZone: string;
}) {
  const { repeated: r, "taken-away": a } = t.counts;
  const both = r.panels > 0 && a.panels > 0;
  const p = both ? oneSidedP(r.withIt, r.panels, a.withIt, a.panels) : null;
  const enough = r.panels >= t.panels && a.panels >= t.panels;
  const proved = p !== null && p <= 1 - t.certainty;
  return (
    <div className="mt-2 border-l-4 border-rule-strong pl-3">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <b>Trial: {causeShort(file.known.knowledge.causes.get(t.cause)?.label ?? t.cause)}</b>
        <Verdict result={proved ? "in" : enough ? "out" : "watch"}>
          {proved
            ? `proved at ${Math.round(t.certainty * 1000) / 10} %`
            : enough
              ? "not proved"
              : both
                ? "not enough panels yet"
                : "planned"}
        </Verdict>
      </div>
      <p className="m-0">{t.plan}</p>
      <div className="row small soft grid-cols-[minmax(0,1fr)_110px_110px]">
        <span>panels that show it</span>
        <span className="text-right">expected</span>
        <span className="text-right">seen</span>
      </div>
      {(
        [
          ["cause repeated", t.expectWith, r],
          ["cause taken away", t.expectWithout, a],
        ] as const
      ).map(([name, share, seen]) => (
        <div key={name} className="row grid-cols-[minmax(0,1fr)_110px_110px]">
          <span>{name}</span>
          <span className="num soft">
            {(share * t.panels).toFixed(1)} of {t.panels}
          </span>
          <span className="num">{seen.panels === 0 ? "–" : `${seen.withIt} of ${seen.panels}`}</span>
        </div>
      ))}
      <p className="faint small m-0 mt-1">
        {t.by}, {dateAndTime(t.at, timeZone)}
        {p !== null && `; by chance alone in ${p < 0.001 ? "fewer than 1 of 1000" : `${(p * 100).toFixed(1)} of 100`}`}
      </p>
      {may(person.role, "inspect") && <TrialResultForm trial={t} />}
    </div>
  );
}

/** Whether what was to keep it away was done, and whether it did: looks so far, racks before and since, the next look. */
async function Action({ person, file, at, timeZone }: Props) {
  const done = file.actionChecks.findLast((c) => c.state !== "not-yet");
  const [since, sheets] = await Promise.all([
    done && file.rack
      ? sinceDone(database(), person, { defect: file.defect, partId: file.rack.part.id, doneAt: done.at, at })
      : null,
    setupAt(database(), "setup-sheet", at),
  ]);
  const effect = since ? effectCheck(since.before, since.after) : null;
  const newest = file.actionChecks[0];
  const back =
    newest?.state === "worked" && since && since.withItSince(newest.at) > 0 ? since.withItSince(newest.at) : 0;
  return (
    <section id="action" aria-label="Corrective action" className="mt-3">
      <h3 className="m-0 font-bold text-[15px]">Corrective action</h3>
      {file.actionChecks.length === 0 && <p className="soft m-0 mt-1">Nobody has said yet whether it was done.</p>}
      {file.actionChecks.map((c) => (
        <div key={c.recordId} className="row grid-cols-[190px_minmax(0,1fr)_auto] max-[560px]:grid-cols-1">
          <Verdict result={actionStateResult[c.state]}>{actionStateName[c.state]}</Verdict>
          <span>
            {c.seen}
            {c.sheet && (
              <>
                {" "}
                <Link className="link" href="/coat/sheets">
                  Sheet {c.sheet}
                </Link>
              </>
            )}
            {c.againOn && <span className="soft small block">To be looked at again on {dayOf(c.againOn)}</span>}
          </span>
          <span className="faint small">
            {c.by}, {dateAndTime(c.at, timeZone)}
          </span>
        </div>
      ))}
      {back > 0 && (
        <p className="mt-1 mb-0">
          <Verdict result="out">It came back: open again</Verdict>{" "}
          <span className="soft">
            {back === 1 ? "1 rack" : `${back} racks`} of this part show it since it was said to stay away.
          </span>
        </p>
      )}
      {since && (
        <div className="mt-1">
          <p className="m-0">
            Racks of this part decided on since it was done: {sharedSaid(since.after)}. As long before:{" "}
            {sharedSaid(since.before)}.
          </p>
          {effect?.ok && (
            <p className="m-0">
              <Verdict
                result={effect.value.said === "worked" ? "in" : effect.value.said === "did-not-work" ? "out" : "watch"}
              >
                {effect.value.said === "worked"
                  ? "It worked"
                  : effect.value.said === "did-not-work"
                    ? "It did not work"
                    : "Too soon to say"}
              </Verdict>{" "}
              <span className="soft">
                {effect.value.said === "too-soon"
                  ? `${effect.value.racksWanted === 1 ? "1 more rack" : `${effect.value.racksWanted} more racks`} without it would settle it.`
                  : `What was seen since is ${Math.round(effect.value.said === "worked" ? effect.value.timesLikelier : effect.value.timesLikelierNot)} times likelier so than not.`}{" "}
                One may look as often as one likes.
              </span>
            </p>
          )}
          {effect && !effect.ok && effect.error.kind === "never-seen" && (
            <p className="soft m-0">It is on record of no rack of this part before, so that no fall can be counted.</p>
          )}
        </div>
      )}
      {may(person.role, "inspect") && (
        <ActionForm
          key={file.actionChecks.length}
          caseNumber={file.number}
          sheets={[...sheets.values()].map((s) => s.code)}
        />
      )}
    </section>
  );
}
