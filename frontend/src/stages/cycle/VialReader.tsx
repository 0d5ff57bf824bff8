/** A vial read beside the kit's card in one picture: the white, the vial and each step are touched once. */
import { useEffect, useRef, useState, type ChangeEvent, type PointerEvent } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { useCompute } from "../../api/compute";
import type { KitSteps, QuestionOf } from "../../api/schemas";
import { Bar, Button, InlineButton, Lead, PickOne, ProblemNote } from "../../kit";

type What = "ammonia" | "nitrite" | "nitrate";
const WHAT = [
  ["ammonia", "ammonia"],
  ["nitrite", "nitrite"],
  ["nitrate", "nitrate"],
] as const;
const LETTER: Record<What, string> = { ammonia: "a", nitrite: "n", nitrate: "no3" };
type Pixels = QuestionOf<"vial-reading">["white"];
interface Touch {
  /** Place on the picture, 0 to 1. */
  x: number;
  y: number;
  pixels: Pixels;
}
/** Longer side of the picture while it is read, and half the width of a touch, px. */
const LONGEST = 1200;
const REACH = 5;
/** How far an arrow key moves the cross, of the picture's side. */
const KEY_STEP = 0.01;

export function VialReader({ tankId, kit }: { tankId: number; kit: Required<KitSteps> }) {
  const [what, setWhat] = useState<What>("ammonia");
  const [touches, setTouches] = useState<Touch[]>([]);
  const [shown, setShown] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const input = useRef<HTMLInputElement>(null);
  const steps = kit[`${what}_ppm`];
  const asked = ["the white of the card", "the vial", ...steps.map((step) => `the card’s ${step}`)];
  const next = asked[touches.length];
  const take = async (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = "";
    if (!file || !canvas.current) return;
    await draw(file, canvas.current);
    setTouches([]);
    setShown(true);
  };
  return (
    <>
      <Lead>
        Photograph the vial and your kit’s card side by side in daylight, then touch both: one light falls on
        both, so the lamp does not matter. Nothing is logged by itself, and the picture stays on this device.
      </Lead>
      <Bar>
        <PickOne
          label="What the vial tests"
          value={what}
          onChange={(value) => {
            setWhat(value);
            setTouches([]);
          }}
          options={WHAT}
        />
        <Button $quiet={shown} onPress={() => input.current?.click()}>
          {shown ? "Another picture" : "Take or choose a picture"}
        </Button>
        <input
          ref={input}
          type="file"
          accept="image/*"
          capture="environment"
          hidden
          aria-label="Picture of the vial"
          onChange={(e) => void take(e)}
        />
      </Bar>
      {shown && (
        <Bar role="status">
          <span>
            {next ? (
              <>
                Touch <strong>{next}</strong>, in its middle.
              </>
            ) : (
              "All touched."
            )}
          </span>
          {touches.length > 0 && (
            <InlineButton
              onPress={() => {
                setTouches(touches.slice(0, -1));
              }}
            >
              Take the last touch back
            </InlineButton>
          )}
        </Bar>
      )}
      <Read
        key={what}
        tankId={tankId}
        what={what}
        question={next === undefined ? questionOf(steps, touches) : null}
      />
      <Picture
        canvas={canvas}
        shown={shown}
        touches={touches}
        next={next}
        onTouch={(touch) => {
          setTouches([...touches, touch]);
        }}
      />
    </>
  );
}

function questionOf(
  steps: readonly number[],
  [white, vial, ...card]: Touch[],
): QuestionOf<"vial-reading"> | null {
  if (!white || !vial) return null;
  const colours = steps.map((figure_on_card, n) => ({ figure_on_card, pixels: card[n]?.pixels ?? [] }));
  return { white: white.pixels, vial: vial.pixels, steps: colours };
}

/** What it reads, and the way into the test. */
function Read({
  tankId,
  what,
  question,
}: {
  tankId: number;
  what: What;
  question: QuestionOf<"vial-reading"> | null;
}) {
  const navigate = useNavigate();
  const read = useCompute("vial-reading", question);
  if (!question) return null;
  if (read.error) return <ProblemNote problem={read.error} />;
  if (!read.data || read.isPlaceholderData) return <p role="status">Comparing…</p>;
  const { verdict, doubts, to_log_on_card: figure } = read.data;
  const put = () => {
    // The line of the test form, as if it had been typed: it is looked at once more before it is logged.
    const key = `reedmace.draft.${tankId}.line`;
    const others = (localStorage.getItem(key) ?? "")
      .split(/\s+(?=[a-z])/i)
      .filter((one) => one && one.split(/\s+/)[0] !== LETTER[what]);
    localStorage.setItem(key, [...others, `${LETTER[what]} ${figure}`].join(" "));
    localStorage.setItem("reedmace.logtest", "line");
    void navigate(`/tanks/${tankId}/cycle`);
  };
  return (
    <section aria-label="What it reads">
      <Said>{verdict}</Said>
      {doubts.slice(1).map((doubt) => (
        <p key={doubt}>{doubt}</p>
      ))}
      <Button $quiet={doubts.length > 0} onPress={put}>
        {doubts.length > 0 ? `Put ${figure} into the test all the same` : `Put ${figure} into the test`}
      </Button>
    </section>
  );
}

interface PictureProps {
  canvas: React.RefObject<HTMLCanvasElement | null>;
  shown: boolean;
  touches: readonly Touch[];
  next: string | undefined;
  onTouch: (touch: Touch) => void;
}

/** The picture, touched by finger, mouse, or a cross moved by the arrow keys. */
function Picture({ canvas, shown, touches, next, onTouch }: PictureProps) {
  const [cross, setCross] = useState<{ x: number; y: number } | null>(null);
  const touch = (x: number, y: number) => {
    const here = canvas.current;
    if (here && next !== undefined) onTouch({ x, y, pixels: pixelsAt(here, x, y) });
  };
  const press = (e: PointerEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    touch((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height);
  };
  const key = (e: React.KeyboardEvent) => {
    const at = cross ?? { x: 0.5, y: 0.5 };
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-KEY_STEP, 0],
      ArrowRight: [KEY_STEP, 0],
      ArrowUp: [0, -KEY_STEP],
      ArrowDown: [0, KEY_STEP],
    };
    const move = moves[e.key];
    if (move) setCross({ x: within(at.x + move[0]), y: within(at.y + move[1]) });
    else if (e.key === "Enter" || e.key === " ") touch(at.x, at.y);
    else return;
    e.preventDefault();
  };
  return (
    <Frame hidden={!shown}>
      <canvas
        ref={canvas}
        tabIndex={0}
        role="button"
        aria-label={`The picture. ${next ? `Touch ${next}` : "All touched"}: arrow keys move the cross, Enter touches.`}
        onPointerDown={press}
        onKeyDown={key}
      />
      {touches.map((one, n) => (
        <Mark key={n} at={one}>
          {n === 0 ? "white" : n === 1 ? "vial" : n - 1}
        </Mark>
      ))}
      {cross && <Mark at={cross}>+</Mark>}
    </Frame>
  );
}

/** Placed by script: the page allows no inline styles. */
function Mark({ at, children }: { at: { x: number; y: number }; children: React.ReactNode }) {
  const mark = useRef<HTMLElement>(null);
  useEffect(() => {
    mark.current?.style.setProperty("left", `${100 * at.x}%`);
    mark.current?.style.setProperty("top", `${100 * at.y}%`);
  }, [at]);
  return (
    <i ref={mark} aria-hidden="true">
      {children}
    </i>
  );
}

function within(share: number): number {
  return Math.min(Math.max(share, 0), 1);
}

async function draw(file: Blob, canvas: HTMLCanvasElement): Promise<void> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d", { willReadFrequently: true })?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
}

/** Pixels round a place, a square of at most 11 by 11. x, y: 0 to 1 */
function pixelsAt(canvas: HTMLCanvasElement, x: number, y: number): Pixels {
  const side = 2 * REACH + 1;
  const left = Math.round(x * canvas.width) - REACH;
  const top = Math.round(y * canvas.height) - REACH;
  const data = canvas.getContext("2d")?.getImageData(left, top, side, side).data ?? new Uint8ClampedArray();
  const found: Pixels = [];
  for (let i = 0; i + 3 < data.length; i += 4)
    // Beyond the picture's edge nothing is there.
    if (data[i + 3]) found.push({ r: data[i] ?? 0, g: data[i + 1] ?? 0, b: data[i + 2] ?? 0 });
  return found;
}

const Said = styled.p`
  font:
    600 1.375rem Vollkorn,
    serif;
  margin: 0 0 6px;
`;
const Frame = styled.div`
  position: relative;
  max-width: 720px;
  canvas {
    display: block;
    width: 100%;
    height: auto;
    cursor: crosshair;
    touch-action: manipulation;
  }
  i {
    position: absolute;
    translate: -50% -50%;
    min-width: 22px;
    padding: 1px 5px;
    border-radius: 12px;
    background: rgb(20 38 42 / 0.78);
    color: white;
    font-style: normal;
    font-size: 0.75rem;
    text-align: center;
    pointer-events: none;
  }
`;
