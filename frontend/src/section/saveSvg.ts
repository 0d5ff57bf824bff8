/** Export of the section as SVG, with all colours and fonts resolved. */
import { saveText } from "../kit/saveText";

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
  saveText(new XMLSerializer().serializeToString(copy), name, "image/svg+xml");
}
