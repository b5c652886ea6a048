/** What of an element's look is written into a saved picture: there it has no style sheet. */
const KEPT = [
  "fill",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "opacity",
  "font-family",
  "font-size",
  "font-weight",
  "text-anchor",
] as const;
/** Dots of a PNG for each px of the page: sharp on paper. */
const DENSITY = 3;

/** A chart's SVG as a file of its own, `width` by `height` px, on the page's own ground. */
function standing(svg: SVGSVGElement): { text: string; width: number; height: number } {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const [from, to] = [svg.querySelectorAll("*"), copy.querySelectorAll("*")];
  for (const [i, element] of from.entries()) {
    const look = getComputedStyle(element);
    const into = to[i] as SVGElement;
    for (const name of ["class", ...KEPT]) into.removeAttribute(name);
    into.setAttribute(
      "style",
      KEPT.map((name) => `${name}:${look.getPropertyValue(name).replaceAll('"', "'")}`).join(";"),
    );
  }
  copy.querySelector("[data-cursor]")?.remove();
  const { width, height } = svg.viewBox.baseVal;
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  for (const [name, value] of Object.entries({
    width,
    height,
    fill: getComputedStyle(svg).getPropertyValue("--bench"),
  }))
    ground.setAttribute(name, String(value));
  copy.prepend(ground);
  for (const name of ["class", "style", "role"]) copy.removeAttribute(name);
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

function give(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement("a"), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Saves a chart as it is seen now, in the theme it is seen in, under its name. */
export async function savePicture(svg: SVGSVGElement, name: string, kind: "svg" | "png"): Promise<void> {
  const file = `${name
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase()
    .slice(0, 80)}.${kind}`;
  const { text, width, height } = standing(svg);
  const drawn = new Blob([text], { type: "image/svg+xml" });
  if (kind === "svg") return give(drawn, file);
  const url = URL.createObjectURL(drawn);
  const image = new Image();
  image.src = url;
  await image.decode();
  const canvas = Object.assign(document.createElement("canvas"), { width: width * DENSITY, height: height * DENSITY });
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  URL.revokeObjectURL(url);
  canvas.toBlob((png) => png && give(png, file), "image/png");
}
