import type { Metadata } from "next";
import { LEAST_PASSWORD } from "@/server/shop/people";
import { personOnPage } from "@/server/sign-in/person";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { OwnPasswordForm } from "@/ui/shop/person-forms";
import { changePassword } from "../../actions";

export const metadata: Metadata = { title: "Your password" };

export default async function PasswordPage() {
  const person = await personOnPage();
  return (
    <>
      <section className="bench">
        <PageHead above={`${person.name}, ${person.username}`} title="Your password" />
        <OwnPasswordForm least={LEAST_PASSWORD} change={changePassword} />
      </section>
      <Margin step="shift">
        <MarginBlock title="What it is for">
          <p>It lets you in, and a lead signs decisions with it. Long is better than odd: a sentence will do.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
