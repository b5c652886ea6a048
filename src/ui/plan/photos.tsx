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
          {/* biome-ignore lint/performance/noImgElement: served by the application itself, already sized */}
          <img src={`/api/files/${p.id}`} alt={p.caption} className="w-full" loading="lazy" />
          <figcaption className="small soft">
            {p.caption}, {p.when}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}
