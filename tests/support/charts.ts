import type { Page } from "@playwright/test";

/**
 * What cannot be read in the charts of a page, in a line each: words that lie on other words, under a line or a mark, or
 * beyond the picture, by the boxes the browser gives them.
 */
export const unreadable = (page: Page): Promise<string[]> =>
  page.locator("figure > svg").evaluateAll((charts) => {
    type Box = { left: number; right: number; top: number; bottom: number };
    const inner = (r: DOMRect): Box => ({ left: r.left + 1, right: r.right - 1, top: r.top + 3, bottom: r.bottom - 3 });
    const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
    const found: string[] = [];
    for (const chart of charts as SVGSVGElement[]) {
      const frame = chart.getBoundingClientRect();
      if (frame.width === 0) continue;
      const name = chart.getAttribute("aria-label") ?? "";
      const words = [...chart.querySelectorAll("text")]
        .filter((t) => t.textContent)
        .map((t) => ({ text: t.textContent ?? "", box: inner(t.getBoundingClientRect()) }));
      const clip = chart.querySelector("clipPath rect")?.getBoundingClientRect();
      const shapes = [...chart.querySelectorAll<SVGGeometryElement>("g[clip-path] path[stroke], g[clip-path] circle")];
      for (const [i, a] of words.entries()) {
        if (a.box.left < frame.left - 2 || a.box.right > frame.right + 2 || a.box.bottom > frame.bottom + 2)
          found.push(`${name}: “${a.text}” is cut`);
        for (const b of words.slice(i + 1)) if (meet(a.box, b.box)) found.push(`${name}: “${a.text}” on “${b.text}”`);
      }
      const [sx, sy] = [frame.width / chart.viewBox.baseVal.width, frame.height / chart.viewBox.baseVal.height];
      for (const shape of shapes) {
        const matrix = shape.getScreenCTM();
        if (!matrix || sx === 0 || sy === 0) continue;
        const length = shape.getTotalLength();
        for (let at = 0; at <= length; at += 3) {
          const p = shape.getPointAtLength(at).matrixTransform(matrix);
          if (clip && (p.x < clip.left || p.x > clip.right)) continue;
          const under = words.find(({ box }) => p.x > box.left && p.x < box.right && p.y > box.top && p.y < box.bottom);
          if (under) {
            found.push(`${name}: “${under.text}” under a line`);
            break;
          }
        }
      }
    }
    return found;
  });
