/** Export of the section as SVG, with all colours and fonts resolved. */
const KEPT = [
  "fill",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linejoin",
  "paint-order",
  "opacity",
  "font",
  "text-anchor",
];

export function saveSvg(svg: SVGSVGElement, name: string): void {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = svg.querySelectorAll<SVGElement>("*");
  const to = copy.querySelectorAll<SVGElement>("*");
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    // Property by property: the content security policy blocks style attributes in markup.
    for (const key of KEPT) to[i]?.style.setProperty(key, style.getPropertyValue(key));
  });
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.querySelectorAll("[role=slider]").forEach((handle) => {
    handle.remove();
  });
  const link = document.createElement("a");
  link.href = URL.createObjectURL(
    new Blob([new XMLSerializer().serializeToString(copy)], { type: "image/svg+xml" }),
  );
  link.download = name;
  link.click();
  setTimeout(() => {
    URL.revokeObjectURL(link.href);
  }, 10_000);
}
