/** The animals at true length, drawn by body form. */
import type { Swimmer } from "./geometry";

export function Swimmers({ all }: { all: Swimmer[] }) {
  return (
    <g aria-hidden="true">
      {all.map((s) => (
        <g
          key={s.key}
          transform={`translate(${s.x} ${s.y}) scale(${s.right ? 1 : -1} 1)`}
          fill={s.tone}
          opacity={0.85}
        >
          <Outline {...s} />
        </g>
      ))}
    </g>
  );
}

/** How deep a fish's body is drawn, as a share of its length. */
const DEPTHS: Partial<Record<Swimmer["form"], number>> = {
  globe: 0.52,
  short: 0.42,
  fusiform: 0.3,
  slender: 0.26,
  elongated: 0.22,
  eel: 0.1,
};

function Outline({ form, length }: Swimmer) {
  const h = length / 2;
  if (form === "tall snail")
    return <path d={`M${-h} 0 L${h} ${-length * 0.16} Q${h * 1.15} 0 ${h * 0.7} ${length * 0.06} Z`} />;
  if (form === "snail") return <path d={`M${-h} 0 a${h} ${h} 0 1 1 ${length} 0 z`} />;
  if (form === "turtle" || form === "axolotl") {
    const deep = form === "turtle" ? 0.5 : 0.2;
    return (
      <path
        d={`M${-h} 0 Q0 ${-length * deep} ${h * 0.7} ${-length * 0.04} q${h * 0.3} ${length * 0.02} ${h * 0.3} ${length * 0.06} L${h * 0.4} ${length * 0.1} l${-h * 0.1} ${length * 0.08} l${-h * 0.15} ${-length * 0.06} L${-h * 0.3} ${length * 0.1} l${-h * 0.1} ${length * 0.07} l${-h * 0.12} ${-length * 0.07} Z`}
      />
    );
  }
  if (form === "shrimp")
    return (
      <path
        d={`M${-h} ${length * 0.12} Q${-h * 0.4} ${-length * 0.28} ${h * 0.6} ${-length * 0.06} L${h} ${-length * 0.16} L${h * 0.7} ${length * 0.08} Q0 ${length * 0.02} ${-h * 0.6} ${length * 0.2} Z`}
      />
    );
  const depth = DEPTHS[form] ?? 0.3;
  const body = length * 0.8;
  return (
    <path
      d={`M${h} 0 Q${h - body * 0.45} ${-length * depth} ${h - body} 0 L${-h} ${-length * depth * 0.45} L${-h * 0.86} 0 L${-h} ${length * depth * 0.45} L${h - body} 0 Q${h - body * 0.45} ${length * depth} ${h} 0 Z`}
    />
  );
}
