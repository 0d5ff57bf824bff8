/** A stopwatch for a fill: one press at its start, one when it is full. */
import { useEffect, useState } from "react";
import { styled } from "styled-components";
import { Button } from "../../kit";
import { fixed } from "../../quantity/format";

interface StopwatchProps {
  /** Number of the fill, from 1. */
  fill: number;
  onTime: (seconds: number) => void;
}

export function Stopwatch({ fill, onTime }: StopwatchProps) {
  const [begunMs, setBegunMs] = useState<number | null>(null);
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (begunMs === null) return;
    const timer = setInterval(() => {
      setNowMs(performance.now());
    }, 100);
    return () => {
      clearInterval(timer);
    };
  }, [begunMs]);
  const press = () => {
    if (begunMs === null) {
      setBegunMs(performance.now());
      setNowMs(performance.now());
      return;
    }
    onTime(Math.max(Number(((performance.now() - begunMs) / 1000).toFixed(1)), 0.5));
    setBegunMs(null);
  };
  return (
    <Big onPress={press} $quiet={begunMs === null}>
      {begunMs === null ? `Time fill ${fill}` : `Full: stop at ${fixed((nowMs - begunMs) / 1000, 1)} s`}
    </Big>
  );
}

const Big = styled(Button)`
  min-height: 56px;
  font-variant-numeric: tabular-nums;
`;
