/** A test by tapping: one row of the kit's steps for each figure, distinguished by number, tone and a fill mark. */
import { useRef, useState } from "react";
import { Button as AriaButton } from "react-aria-components";
import { styled } from "styled-components";
import { useBlanks } from "../../api/tables";
import { useWrite } from "../../api/entries";
import type { KitSteps, Reading } from "../../api/schemas";
import { Button, InlineButton, phone, ProblemNote, YesNo } from "../../kit";
import type { Vials } from "../../api/practice";
import { When } from "../../shared/When";

type What = "ammonia" | "nitrite" | "nitrate";
const ROWS: readonly What[] = ["ammonia", "nitrite", "nitrate"];
const NAMES: Record<What, string> = { ammonia: "Ammonia", nitrite: "Nitrite", nitrate: "Nitrate" };

interface Props {
  tankId: number;
  kit: Required<KitSteps>;
  onWritten: (id: number | "held") => void;
  /** What a practice kit shows. */
  shown?: Vials;
  /** Whether a practice kit is another than the tank's own. */
  borrowed?: boolean;
}

type Picked = Partial<Record<What, number>>;

export function TapTest({ tankId, kit, onWritten, shown, borrowed = false }: Props) {
  const { reading: blank } = useBlanks();
  const storageKey = `reedmace.draft.${tankId}.taps`;
  const [picked, setPicked] = useState<Picked>(() => read(storageKey));
  const [at, setAt] = useState<string | null>(null);
  const [otherKit, setOtherKit] = useState(false);
  const write = useWrite(tankId);
  const latest = useRef(picked);
  const keep = (next: Picked) => {
    latest.current = next;
    setPicked(next);
    localStorage.setItem(storageKey, JSON.stringify(next));
  };
  const steps: Record<What, number[]> = {
    ammonia: kit.ammonia_ppm,
    nitrite: kit.nitrite_ppm,
    nitrate: kit.nitrate_ppm,
  };
  const any = ROWS.some((what) => picked[what] != null);
  const log = async () => {
    // Drops are counted and pH is matched as they are; only colours are read by eye.
    const other_kit = otherKit || borrowed;
    const body: Reading = { ...blank, basis: kit.basis, ...shown?.vials.reads, other_kit };
    for (const what of ROWS) body[`${what}_ppm`] = picked[what] ?? null;
    // The top step is open-ended.
    body.off_scale = ROWS.filter((what) => picked[what] != null && picked[what] === steps[what].at(-1));
    const entry = await write.mutateAsync({ body, at: at ?? undefined });
    // What was tapped for the next test while this one was on its way stays.
    keep(tappedSince(picked, latest.current));
    setAt(null);
    setOtherKit(false);
    onWritten(entry === "held" ? "held" : entry.id);
  };
  return (
    <div data-quick-entry>
      {ROWS.map((what) => (
        <Scale key={what} $vial={shown !== undefined} role="group" aria-label={`${NAMES[what]}, ppm`}>
          <span>
            {NAMES[what]}
            {shown && <Vial tone={toneAt(shown.vials[what], steps[what].length)} />}
          </span>
          <div>
            {steps[what].map((step, i) => (
              <KitStep
                key={step}
                name={NAMES[what]}
                ppm={step}
                at={i}
                last={steps[what].length - 1}
                chosen={picked[what] === step}
                onPress={() => {
                  keep({ ...picked, [what]: picked[what] === step ? undefined : step });
                }}
              />
            ))}
          </div>
        </Scale>
      ))}
      <Foot>
        <Button isDisabled={!any || write.isPending} onPress={() => void log().catch(() => undefined)}>
          Log the test
        </Button>
        {any && (
          <InlineButton
            onPress={() => {
              keep({});
            }}
          >
            Clear
          </InlineButton>
        )}
        <When at={at} onChange={setAt} />
        {any && !shown && <YesNo label="Another kit than before" value={otherKit} onChange={setOtherKit} />}
      </Foot>
      <ProblemNote problem={write.error} />
    </div>
  );
}

interface KitStepProps {
  name: string;
  ppm: number;
  /** Its place among the kit's steps, and that of the last, which is open-ended. */
  at: number;
  last: number;
  chosen: boolean;
  onPress: () => void;
}

function KitStep({ name, ppm, at, last, chosen, onPress }: KitStepProps) {
  const share = at / Math.max(last, 1);
  const more = at === last ? "+" : "";
  return (
    <Step
      aria-label={`${name} ${ppm}${more} ppm`}
      aria-pressed={chosen}
      data-chosen={chosen || undefined}
      $depth={share}
      onPress={onPress}
    >
      <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true">
        <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" />
        <rect x="1" y={1 + 10 * (1 - share)} width="10" height={10 * share} fill="currentColor" />
      </svg>
      {ppm}
      {more}
    </Step>
  );
}

/** Steps that differ from those already logged. */
function tappedSince(logged: Picked, now: Picked): Picked {
  const next: Picked = {};
  for (const what of ROWS) if (now[what] !== logged[what]) next[what] = now[what];
  return next;
}

/** A vial with its water coloured, to be laid against the steps. */
function Vial({ tone: percent }: { tone: number }) {
  return (
    <svg viewBox="0 0 22 34" width="30" height="44" role="img" aria-label="the vial">
      <path
        d="M4 2h14M6 2v24a5 5 0 0 0 10 0V2"
        fill="none"
        stroke="var(--ink-soft)"
        strokeWidth="1.6"
        strokeLinecap="round"
      />
      <path
        d="M7 9v17a4 4 0 0 0 8 0V9z"
        style={{ fill: `color-mix(in srgb, var(--seed) ${percent}%, var(--field))` }}
      />
    </svg>
  );
}

/** Tone at a place between two steps. */
function toneAt(place: number, steps: number): number {
  const low = Math.min(Math.floor(place), steps - 1);
  const high = Math.min(low + 1, steps - 1);
  const [from, to] = [low, high].map((i) => tone(steps > 1 ? i / (steps - 1) : 0)) as [number, number];
  return from + (to - from) * (place - low);
}

function read(storageKey: string): Picked {
  try {
    return JSON.parse(localStorage.getItem(storageKey) ?? "{}") as Picked;
  } catch {
    return {};
  }
}

/** Share of the full tone, in percent. Middle tones are left out, since neither dark nor light text is legible on them. */
function tone(depth: number): number {
  return Math.round(depth <= 0.5 ? depth * 80 : 64 + depth * 36);
}

const Scale = styled.div<{ $vial: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => (p.$vial ? "112px" : "74px")} minmax(0, 1fr);
  align-items: center;
  gap: 6px;
  padding: 2px 0;
  > span {
    display: flex;
    align-items: center;
    justify-content: space-between;
    font-size: 0.9375rem;
    color: var(--ink-soft);
  }
  > div {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, 1fr);
    gap: 3px;
  }
  ${phone} {
    grid-template-columns: 1fr;
    gap: 1px;
    > span {
      font-size: 0.875rem;
      line-height: 1.1;
    }
  }
`;
/** One hue, deeper for more; on deep tones the text is light so that it stays legible. */
const Step = styled(AriaButton)<{ $depth: number }>`
  min-height: 44px;
  min-width: 0;
  padding: 2px;
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 1px;
  border: 1px solid var(--seed);
  border-radius: 4px;
  font-size: 0.9375rem;
  cursor: pointer;
  background: color-mix(in srgb, var(--seed) ${(p) => tone(p.$depth)}%, var(--field));
  color: ${(p) => (tone(p.$depth) > 60 ? "var(--on-ink)" : "var(--ink)")};
  &[data-chosen] {
    outline: 3px solid var(--ink);
    outline-offset: 1px;
    font-weight: 600;
  }
  &[data-focus-visible]:not([data-chosen]) {
    outline: 3px solid var(--water);
    outline-offset: 1px;
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  padding-top: 6px;
`;
