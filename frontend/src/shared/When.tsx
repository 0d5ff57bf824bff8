/** Time of an entry: now, unless another is given. */
import { nowDate, nowMs } from "../api/clock";
import { useId } from "react";
import { styled } from "styled-components";
import { InlineButton } from "../kit";

interface Props {
  /** ISO time, null for now. */
  at: string | null;
  onChange: (at: string | null) => void;
}

export function When({ at, onChange }: Props) {
  const id = useId();
  if (at === null)
    return (
      <InlineButton
        onPress={() => {
          onChange(nowDate().toISOString());
        }}
      >
        Now; another time
      </InlineButton>
    );
  return (
    <Box>
      <label htmlFor={id}>When</label>
      <input
        id={id}
        type="datetime-local"
        value={local(at)}
        max={local(new Date(nowMs() + 3_600_000).toISOString())}
        onChange={(e) => {
          const time = new Date(e.target.value);
          if (!Number.isNaN(time.getTime())) onChange(time.toISOString());
        }}
      />
      <InlineButton
        onPress={() => {
          onChange(null);
        }}
      >
        Now
      </InlineButton>
    </Box>
  );
}

function local(iso: string): string {
  const at = new Date(iso);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

const Box = styled.span`
  display: inline-flex;
  gap: 8px;
  align-items: center;
  input {
    min-height: 40px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 4px 8px;
  }
  label {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
`;
