"use client";
import { scaleLinear, select, type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from "d3";
import { type RefObject, useEffect, useRef, useState } from "react";

/**
 * What of a span is seen in an element `width` wide, in the span's own unit: moved by drag, looked closer at by the wheel
 * with Ctrl, by touch and by what is returned. Nothing is seen beyond the span, nor closer than `closest`. Begins with the
 * newest `first` of it where that is less than all.
 */
export function useTimeZoom<E extends HTMLElement>(
  element: RefObject<E | null>,
  {
    from,
    to,
    width,
    closest,
    first = to - from,
  }: Record<"from" | "to" | "closest", number> & {
    /** Of the element, in what its pointer is read in. */
    width: number;
    first?: number;
  },
) {
  const behaviour = useRef<ZoomBehavior<E, unknown>>(null);
  const [look, setLook] = useState<ZoomTransform>(zoomIdentity);
  useEffect(() => {
    const node = element.current;
    if (!node) return;
    const box: [[number, number], [number, number]] = [
      [0, 0],
      [width, 1],
    ];
    const made = zoom<E, unknown>()
      .filter(
        (e: Event) =>
          (e.type !== "wheel" || (e as WheelEvent).ctrlKey) && !(e.target as Element).closest("button, [role=menu]"),
      )
      .scaleExtent([1, Math.max(1, (to - from) / closest)])
      .extent(box)
      .translateExtent(box)
      .on("zoom", (e: { transform: ZoomTransform }) => setLook(e.transform));
    behaviour.current = made;
    const on = select<E, unknown>(node);
    on.call(made).on("dblclick.zoom", null);
    const across = Math.min(1, first / (to - from));
    on.call(
      made.transform,
      across < 1 ? zoomIdentity.scale(1 / across).translate(-width * (1 - across), 0) : zoomIdentity,
    );
    return () => void on.on(".zoom", null);
  }, [element, from, to, width, closest, first]);
  const [seenFrom, seenTo] = look.rescaleX(scaleLinear([from, to], [0, width])).domain() as [number, number];
  const by = (act: (on: ReturnType<typeof select<E, unknown>>, zoom: ZoomBehavior<E, unknown>) => void) => () => {
    if (element.current && behaviour.current) act(select<E, unknown>(element.current), behaviour.current);
  };
  return {
    from: seenFrom,
    to: seenTo,
    /** So many times closer than all of it. */
    times: look.k,
    /** By a share of what is seen; under nothing is earlier. */
    move: (share: number) => by((on, made) => made.translateBy(on, (-share * width) / look.k, 0))(),
    closer: (times: number) => by((on, made) => made.scaleBy(on, times))(),
    all: by((on, made) => made.transform(on, zoomIdentity)),
  };
}
