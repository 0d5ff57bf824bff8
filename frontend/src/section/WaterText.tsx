/** What is written into the water of the section: litres and the lines under them. */
import type { TankVolume } from "../api/schemas";
import type { Sheet } from "./geometry";
import { show, twinOf } from "../quantity/format";

interface WaterTextProps {
  sheet: Sheet;
  volume?: TankVolume;
  lines: string[];
}

/** What is written in the water: how much it is, or other lines. */
export function WaterText({ sheet, volume, lines }: WaterTextProps) {
  const { left, tankWidth, waterY, bottomY } = sheet;
  const middle = left + tankWidth / 2;
  return (
    <>
      {volume && (
        <>
          <text x={middle} y={waterY + (bottomY - waterY) * 0.42} textAnchor="middle" className="big">
            {show(volume.net_l, "L")}
          </text>
          <text x={middle} y={waterY + (bottomY - waterY) * 0.42 + 25} textAnchor="middle">
            {twinOf(volume.net_l, "L")} · {show(volume.water_depth_cm, "cm", 1)} deep
          </text>
        </>
      )}
      {lines.map((text, i) => (
        <text
          key={text}
          x={middle}
          y={waterY + 30 + i * 21 + (i ? 9 : 0)}
          textAnchor="middle"
          className={i ? "" : "big"}
        >
          {text}
        </text>
      ))}
    </>
  );
}

/** Units of the drawing that a letter of a small label takes. */
const LETTER = 7.6;

/** Lines of text in the water, broken at their dots where the tank is narrow. */
export function linesWithin(lines: string[] = [], width: number): string[] {
  const most = Math.max(Math.floor((width - 12) / LETTER), 12);
  return lines.flatMap((line, i) =>
    i === 0 || line.length <= most ? [line] : broken(line.split(" · "), most),
  );
}

function broken(parts: string[], most: number): string[] {
  return parts.reduce<string[]>((found, part) => {
    const last = found.at(-1);
    const joined = last === undefined ? part : `${last} · ${part}`;
    return joined.length <= most ? [...found.slice(0, -1), joined] : [...found, part];
  }, []);
}
