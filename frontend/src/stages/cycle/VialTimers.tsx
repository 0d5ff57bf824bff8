/** Waits of tests in their vials: several at once, by the clock, so that a locked phone loses none. */
import { useEffect, useState } from "react";
import { styled } from "styled-components";
import { Button, InlineButton } from "../../kit";

const KEY = "reedmace.vials";
/** Waits that kits ask for most, in minutes. */
const WAITS_MIN = [3, 5, 10];
/** After this a wait that nobody ended is forgotten, in ms. */
const FORGOTTEN_MS = 3_600_000;

export function VialTimers() {
  const [ends, setEnds] = useState<number[]>(read);
  const now = useNow(ends.length > 0);
  const keep = (next: number[]) => {
    setEnds(next);
    localStorage.setItem(KEY, JSON.stringify(next));
  };
  return (
    <Row role="group" aria-label="Wait for a vial">
      <span>Wait for a vial:</span>
      {WAITS_MIN.map((minutes) => (
        <Button
          key={minutes}
          $quiet
          onPress={() => {
            keep([...ends, Date.now() + minutes * 60_000]);
          }}
        >
          {minutes} min
        </Button>
      ))}
      {ends.map((end, i) => (
        <span key={end} role="timer" data-over={end <= now || undefined}>
          Vial {i + 1}: {left(end - now)}{" "}
          <InlineButton
            aria-label={`End the wait of vial ${i + 1}`}
            onPress={() => {
              keep(ends.filter((one) => one !== end));
            }}
          >
            {end <= now ? "Read it" : "End"}
          </InlineButton>
        </span>
      ))}
    </Row>
  );
}

function left(ms: number): string {
  if (ms <= 0) return "it is time.";
  const seconds = Math.ceil(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}

/** The time, each second while it is asked for. */
function useNow(running: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      setNow(Date.now());
    }, 1000);
    return () => {
      clearInterval(timer);
    };
  }, [running]);
  return now;
}

function read(): number[] {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? "[]") as number[];
    return kept.filter((end) => end > Date.now() - FORGOTTEN_MS);
  } catch {
    return [];
  }
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  font-size: 0.9375rem;
  [data-over] {
    font-weight: 600;
    color: var(--seed);
  }
`;
