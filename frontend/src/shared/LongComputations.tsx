/** Beside the menu during a long computation: its duration, and a way to cancel it. */
import { useIsFetching, useQueryClient, type Query } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { styled } from "styled-components";
import { InlineButton, phone } from "../kit";

/** Shorter computations show nothing. */
const SOON_MS = 300;
/** Computations of this page; logbook data is always loaded. */
const isSum = ({ queryKey }: Query): boolean => ["compute", "view", "cycle"].includes(String(queryKey[0]));

export function LongSums() {
  const queries = useQueryClient();
  const running = useIsFetching({ predicate: isSum }) > 0;
  const [left, setLeft] = useState(false);
  const seconds = useSecondsOf(running);
  if (running && seconds !== null)
    return (
      <Said role="status">
        <span>At work{seconds > 0 && `, ${seconds} s`}.</span>
        <InlineButton
          onPress={() => {
            setLeft(true);
            void queries.cancelQueries({ predicate: isSum });
          }}
        >
          Leave it
        </InlineButton>
      </Said>
    );
  if (running || !left) return null;
  return (
    <Said role="status">
      <span>Left undone.</span>
      <InlineButton
        onPress={() => {
          setLeft(false);
          void queries.refetchQueries({ predicate: isSum, type: "active" });
        }}
      >
        Ask again
      </InlineButton>
    </Said>
  );
}

/** Whole seconds a computation has been running; null for a short one. */
function useSecondsOf(running: boolean): number | null {
  const [seconds, setSeconds] = useState<number | null>(null);
  useEffect(() => {
    if (!running) return;
    const begunMs = performance.now();
    const soon = setTimeout(() => {
      setSeconds(0);
    }, SOON_MS);
    const each = setInterval(() => {
      setSeconds(Math.floor((performance.now() - begunMs) / 1000));
    }, 1000);
    return () => {
      clearTimeout(soon);
      clearInterval(each);
      setSeconds(null);
    };
  }, [running]);
  return seconds;
}

const Said = styled.p`
  display: flex;
  gap: 0 8px;
  align-items: center;
  color: var(--ink-soft);
  font-size: 0.875rem;
  white-space: nowrap;
  /* Over the end of the stage navigation, so that the stages keep their places. */
  position: absolute;
  right: 76px;
  top: 3px;
  line-height: 1;
  padding-left: 8px;
  background: var(--paper);
  ${phone} {
    position: static;
    padding: 0;
    span {
      display: none;
    }
  }
`;
