import type { RailFacts } from "@/server/line/rail-facts";
import type { Person } from "@/server/sign-in/roles";
import { span } from "../format";
import Link from "../link";
import { Tag } from "../marks/verdict";
import { stageNames } from "../words/reasons";
import { StageLink } from "./stage-link";
import { WhoMenu } from "./who-menu";

const hrefs: Record<string, string> = {
  plan: "/plan",
  prepare: "/prepare",
  pretreat: "/pretreat",
  coat: "/coat",
  cure: "/cure",
  test: "/test",
  release: "/release",
  field: "/field",
};

/** The line across the top: navigation and the shift's pulse in one. */
export function Rail({
  facts,
  person,
  clockText,
  shift,
}: {
  facts: RailFacts;
  person: Person;
  clockText: string;
  shift: string;
}) {
  return (
    <header className="rail">
      <Link
        href="/"
        className="block pt-4 text-[22px] font-[760] tracking-tight text-sorrel no-underline"
        aria-label="Sorrel, to the shift"
      >
        <svg width="22" height="22" viewBox="0 0 22 22" className="mr-1.5 inline align-[-4px]" aria-hidden="true">
          <path d="M3 20C3 9 9 2 20 2c0 11-6 18-17 18Z" fill="currentColor" />
          <path d="M4 19 15 7" stroke="var(--ground)" strokeWidth="1.6" />
        </svg>
        <span className="mark-word">Sorrel</span>
      </Link>
      <RailLine facts={facts} />
      <div className="min-w-[150px] pt-2.5 text-right text-[12.5px] leading-snug text-ink-2 max-[1000px]:min-w-0">
        <WhoMenu name={person.name} role={person.role} shift={`${shift} · ${clockText}`} />
      </div>
    </header>
  );
}

function RailLine({ facts }: { facts: RailFacts }) {
  return (
    <nav className="rail-line" aria-label="The line">
      {facts.stages.map((stage) => (
        <StageLink
          key={stage.id}
          href={hrefs[stage.id] as string}
          id={stage.id}
          fact={
            stage.fact.text ?? (stage.fact.sinceMs === null ? "" : `${stage.fact.prefix} ${span(stage.fact.sinceMs)}`)
          }
        >
          {stage.tags.length > 0 && (
            <span className="tags">
              {stage.tags.slice(0, 5).map((tag) => (
                <Tag key={tag.number} result={tag.result} title={`Rack ${tag.number}: ${tag.word}`} />
              ))}
              {stage.racks > 5 && <span className="fig text-[11px] leading-4">+{stage.racks - 5}</span>}
            </span>
          )}
          <b>{stageNames[stage.id]}</b>
        </StageLink>
      ))}
    </nav>
  );
}
