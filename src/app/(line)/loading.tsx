/** The frame of the view that is asked for, in its own place, so that nothing jumps when it comes. */
export default function Loading() {
  return (
    <>
      <section className="bench" aria-busy="true">
        <p role="status" className="sr-only">
          Reading the record …
        </p>
        <div className="coming" aria-hidden>
          <div className="coming-bar mt-1 h-4 w-[180px]" />
          <div className="coming-bar mt-2 h-7 w-[300px]" />
          <div className="ruled mt-3" />
          {["a", "b", "c", "d", "e", "f"].map((row) => (
            <div key={row} className="row min-h-[52px] items-center">
              <div className="coming-bar h-4 w-2/3" />
            </div>
          ))}
        </div>
      </section>
      <aside className="margin max-[1000px]:hidden" aria-hidden>
        <div className="coming">
          <div className="coming-bar h-4 w-[120px]" />
          <div className="coming-bar mt-3 h-4 w-full" />
          <div className="coming-bar mt-2 h-4 w-4/5" />
        </div>
      </aside>
    </>
  );
}
