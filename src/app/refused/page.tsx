import Link from "@/ui/link";

export default function Page() {
  return (
    <main className="mx-auto max-w-[560px] px-6 py-20">
      <h1>Not with your role</h1>
      <p className="mt-3">This needs another role. Ask a lead or the administrator; nothing was changed.</p>
      <p className="mt-6">
        <Link className="btn" href="/">
          To the shift
        </Link>
      </p>
    </main>
  );
}
