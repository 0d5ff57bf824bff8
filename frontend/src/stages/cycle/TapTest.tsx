/** A test by tapping: one row of the kit's steps for each figure, distinguished by number, tone and a fill mark. */
import { useState } from "react";
import { Button as AriaButton } from "react-aria-components";
import { styled } from "styled-components";
import { useBlanks } from "../../api/tables";
import { useWrite } from "../../api/entries";
import type { KitSteps, Reading } from "../../api/schemas";
import { Button, InlineButton, phone, ProblemNote } from "../../kit";
import { When } from "../../shared/When";

type What = "ammonia" | "nitrite" | "nitrate";
const ROWS: readonly What[] = ["ammonia", "nitrite", "nitrate"];
const NAMES: Record<What, string> = { ammonia: "Ammonia", nitrite: "Nitrite", nitrate: "Nitrate" };

interface Props {
  tankId: number;
  kit: Required<KitSteps>;
  onWritten: (id: number | "held") => void;
}

type Picked = Partial<Record<What, number>>;

export function TapTest({ tankId, kit, onWritten }: Props) {
  const { reading: blank } = useBlanks();
  const storageKey = `reedmace.draft.${tankId}.taps`;
  const [picked, setPicked] = useState<Picked>(() => read(storageKey));
  const [at, setAt] = useState<string | null>(null);
  const write = useWrite(tankId);
  const keep = (next: Picked) => {
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
    const body: Reading = { ...blank, basis: kit.basis };
    for (const what of ROWS) body[`${what}_ppm`] = picked[what] ?? null;
    // The top step is open-ended.
    body.off_scale = ROWS.filter((what) => picked[what] != null && picked[what] === steps[what].at(-1));
    const entry = await write.mutateAsync({ body, at: at ?? undefined });
    keep({});
    setAt(null);
    onWritten(entry === "held" ? "held" : entry.id);
  };
  return (
    <div data-quick-entry>
      {ROWS.map((what) => (
        <Scale key={what} role="group" aria-label={`${NAMES[what]}, ppm`}>
          <span>{NAMES[what]}</span>
          <div>
            {steps[what].map((step, i) => (
              <Step
                key={step}
                aria-label={`${NAMES[what]} ${step}${i === steps[what].length - 1 ? "+" : ""} ppm`}
                aria-pressed={picked[what] === step}
                data-chosen={picked[what] === step || undefined}
                $depth={steps[what].length > 1 ? i / (steps[what].length - 1) : 0}
                onPress={() => {
                  keep({ ...picked, [what]: picked[what] === step ? undefined : step });
                }}
              >
                <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true">
                  <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" />
                  <rect
                    x="1"
                    y={1 + 10 * (1 - i / Math.max(steps[what].length - 1, 1))}
                    width="10"
                    height={10 * (i / Math.max(steps[what].length - 1, 1))}
                    fill="currentColor"
                  />
                </svg>
                {step}
                {i === steps[what].length - 1 ? "+" : ""}
              </Step>
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
      </Foot>
      <ProblemNote problem={write.error} />
    </div>
  );
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

const Scale = styled.div`
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr);
  align-items: center;
  gap: 6px;
  padding: 2px 0;
  > span {
    font-size: 15px;
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
      font-size: 14px;
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
  font-size: 15px;
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
