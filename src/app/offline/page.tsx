import Link from "next/link";

export default function Page() {
  return (
    <main className="mx-auto max-w-[560px] px-6 py-20">
      <h1>No network</h1>
      <p className="mt-3">
        Sorrel is not reachable. What you typed on an open page is still there; it can be recorded when the network is
        back.
      </p>
      <p className="mt-6">
        <Link className="btn" href="/">
          To the shift
        </Link>
      </p>
    </main>
  );
}
