import Image from "next/image";

/** Pictures on record, newest first, each with what it shows. */
export function Photos({
  photos,
}: {
  photos: readonly { readonly id: string; readonly caption: string; readonly when: string }[];
}) {
  return (
    <div className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-3">
      {photos.map((p) => (
        <figure key={p.id} className="m-0">
          <Image
            src={`/api/files/${p.id}`}
            alt={p.caption}
            width={360}
            height={270}
            unoptimized
            className="h-auto w-full"
          />
          <figcaption className="small soft">
            {p.caption}, {p.when}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
