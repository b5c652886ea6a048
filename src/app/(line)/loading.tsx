export default function Loading() {
  return (
    <section className="bench">
      <p className="soft" role="status">
        Reading the record …
      </p>
    </section>
  );
}
