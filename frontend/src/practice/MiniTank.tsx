/** A learner's tank drawn small: who lives, and, once uncovered, how its water is. */
import type { Learner } from "../api/practiceClass";

/** Fish drawn at most. */
const MOST_DRAWN = 12;
/** Poison from which the water is drawn as harmful, mg N/L. */
const SPOILT = 0.25;

export function MiniTank({ alive, truth }: { alive: number; truth: Learner["truth"] }) {
  const poison = truth ? truth.ammonia_mg_n_l + truth.nitrite_mg_n_l : 0;
  const words = `${alive === 0 ? "Nobody" : `${alive} animals`} in it${poison > SPOILT ? ", its water harmful" : ""}`;
  return (
    <svg viewBox="0 0 92 62" role="img" aria-label={words}>
      <rect
        x={3}
        y={12}
        width={86}
        height={46}
        fill={poison > SPOILT ? "var(--seed-pale, var(--silt))" : "var(--water-fill)"}
      />
      <path d="M3 54 H89 V58 H3 Z" fill="var(--sand)" />
      <rect x={3} y={5} width={86} height={53} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
      {poison > SPOILT && (
        <path d="M3 20 H89 M3 32 H89 M3 44 H89" stroke="var(--seed)" strokeDasharray="3 5" />
      )}
      {Array.from({ length: Math.min(alive, MOST_DRAWN) }, (_, i) => {
        const x = 14 + (i % 4) * 19;
        const y = 22 + Math.floor(i / 4) * 11;
        return <path key={i} d={`M${x} ${y} q5 -5 10 0 q-5 5 -10 0 l-4 -3 v6 z`} fill="var(--seed)" />;
      })}
    </svg>
  );
}
