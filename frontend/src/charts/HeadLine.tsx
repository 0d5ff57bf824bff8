/** Head behind every part of the plumbing, clean, after a service and when due: a line through the parts. */
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { PlumbingHeads } from "../api/schemas";
import { bare, fixed, show, ticksOf, toHome, unitName } from "../quantity/format";
import { ChartFrame } from "./frame";
import { usePhone } from "../kit/usePhone";

type Node = PlumbingHeads["nodes"][number];
const ROW = 24;
const TOP = 24;
const LEGEND = 124;
const STATES = [
  { key: "dirty_m", word: "when due", dash: "4 4", stroke: "var(--seed)" },
  { key: "serviced_m", word: "after a service", dash: "1 4", stroke: "var(--stone)" },
  { key: "clean_m", word: "clean", dash: undefined, stroke: "var(--water)" },
] as const;

export function HeadLine({ heads }: { heads: PlumbingHeads }) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const left = small ? 168 : 220;
  const legend = small ? 0 : left + 8;
  const all = heads.nodes.flatMap((n) => [n.clean_m, n.serviced_m, n.dirty_m]);
  const low = Math.min(...all, 0);
  const high = Math.max(...all, 0.01);
  const x = scaleLinear<number>({ domain: [low, high], range: [left + 8, W - 16] });
  const y = (i: number) => TOP + i * ROW + ROW / 2;
  const bottom = TOP + heads.nodes.length * ROW;
  const ticks = ticksOf(high - low, "m", small ? 3 : 5).map((t) => toHome(t, "m"));
  const shown = [...ticks, ...ticks.map((t) => -t)].filter(
    (t, i, list) => t >= low && t <= high && list.indexOf(t) === i,
  );
  const least = heads.nodes.reduce<Node | undefined>(
    (a, n) => (a && a.dirty_m <= n.dirty_m ? a : n),
    undefined,
  );
  const sentence = `Heads over the tank’s water line, least behind the ${least?.part ?? ""}: ${show(least?.dirty_m ?? 0, "m", 2)} when due for cleaning. For the pressure at a point add how far it lies under that line.`;
  return (
    <ChartFrame
      title="Head along the way"
      sentence={sentence}
      columns={["Behind", "Clean, m", "After a service, m", "When due, m", "Node in the EPANET file"]}
      rows={heads.nodes.map((n) => [
        n.part,
        fixed(n.clean_m, 3),
        fixed(n.serviced_m, 3),
        fixed(n.dirty_m, 3),
        n.name,
      ])}
    >
      <svg viewBox={`0 0 ${W} ${bottom + 40}`} role="img" aria-label={sentence}>
        {shown.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${TOP} V${bottom}`} stroke="var(--line)" strokeWidth={t === 0 ? 1.6 : 0.7} />
            <text x={x(t)} y={bottom + 17} textAnchor="middle" className="soft">
              {bare(t, "m", 1)}
            </text>
          </g>
        ))}
        <text x={W - 2} y={bottom + 35} textAnchor="end" className="soft">
          {unitName("m")} over the water line
        </text>
        {heads.nodes.map((n, i) => (
          <text key={n.name} x={0} y={y(i) + 5}>
            {n.part}
          </text>
        ))}
        {STATES.map((state, s) => (
          <g key={state.key}>
            <LinePath
              data={heads.nodes.map((n, i) => ({ x: x(n[state.key]), y: y(i) }))}
              x={(p) => p.x}
              y={(p) => p.y}
              stroke={state.stroke}
              strokeWidth={2}
              strokeDasharray={state.dash}
            />
            {heads.nodes.map((n, i) => (
              <circle key={n.name} cx={x(n[state.key])} cy={y(i)} r={3} fill={state.stroke} />
            ))}
            <path
              d={`M${legend + (2 - s) * LEGEND} 8 h16`}
              stroke={state.stroke}
              strokeWidth={2}
              strokeDasharray={state.dash}
            />
            <text x={legend + 20 + (2 - s) * LEGEND} y={13} className="soft">
              {state.word}
            </text>
          </g>
        ))}
      </svg>
    </ChartFrame>
  );
}
