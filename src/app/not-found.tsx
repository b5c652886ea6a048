import Link from "@/ui/link";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[560px] px-6 py-20">
      <h1>Nothing here for you by that name</h1>
      <p className="mt-3">
        Check the number on the tag, or look it up: any page's entry line finds racks, jobs, baths, cases and
        structures.
      </p>
      <p className="mt-6">
        <Link className="btn" href="/">
          To the shift
        </Link>
      </p>
    </main>
  );
}
