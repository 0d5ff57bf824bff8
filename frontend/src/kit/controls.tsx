/** Buttons and fields on React Aria. */
import { useState, type KeyboardEvent } from "react";
import {
  Button as AriaButton,
  FieldError,
  Input,
  Label,
  Slider as AriaSlider,
  SliderOutput,
  SliderThumb,
  SliderTrack,
  Text,
  TextArea,
  TextField as AriaTextField,
} from "react-aria-components";
import { Link } from "react-router";
import { styled } from "styled-components";
import { phone } from "./theme";

export const Button = styled(AriaButton)<{ $quiet?: boolean }>`
  min-height: 40px;
  padding: 6px 16px;
  border: 1px solid ${(p) => (p.$quiet ? "var(--line)" : "var(--ink)")};
  border-radius: 4px;
  background: ${(p) => (p.$quiet ? "transparent" : "var(--ink)")};
  color: ${(p) => (p.$quiet ? "var(--ink)" : "var(--on-ink)")};
  font-weight: 600;
  cursor: pointer;
  &[data-hovered] {
    border-color: var(--seed);
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled] {
    opacity: 0.55;
    cursor: default;
  }
  ${phone} {
    min-height: 44px;
  }
`;

/** A button styled as part of a sentence. */
export const InlineButton = styled(AriaButton)`
  padding: 0;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  min-height: 24px;
  &[data-hovered] {
    color: var(--seed);
  }
`;

/** A link on a line of its own, tall enough for a thumb. */
export const LineLink = styled(Link)`
  display: block;
  width: fit-content;
  min-height: 24px;
  ${phone} {
    min-height: 44px;
    align-content: center;
  }
`;

export const fieldBox = `
  display: grid;
  gap: 3px;
  align-content: start;
  label, .react-aria-Label { font-size: 0.9375rem; color: var(--ink-soft); }
  input {
    width: 100%; min-width: 0; min-height: 40px; padding: 6px 10px; border: 1px solid var(--line); border-radius: 4px; background: var(--field);
  }
  textarea {
    width: 100%; padding: 6px 10px; border: 1px solid var(--line); border-radius: 4px; background: var(--field); font: inherit; color: inherit;
  }
  input[data-invalid], [data-invalid] input { border-color: var(--alarm); }
  .react-aria-FieldError { color: var(--alarm); font-size: 0.875rem; }
  [slot="description"] { color: var(--ink-soft); font-size: 0.875rem; }
  @media (max-width: 45em) { input { min-height: 44px; font-size: 1rem; } }
`;
export const FieldBox = styled.div`
  ${fieldBox}
`;
const StyledText = styled(AriaTextField)`
  ${fieldBox}
  > button {
    justify-self: start;
  }
`;

interface TextFieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  type?: "text" | "email" | "password" | "time";
  autoComplete?: string;
  hint?: string;
  error?: string | null;
  required?: boolean;
  placeholder?: string;
  inputMode?: "decimal" | "text" | "email";
  onBlur?: () => void;
  onKeyDown?: (e: KeyboardEvent) => void;
  /** Hidden where a column's header labels it. */
  hideLabel?: boolean;
  /** What was typed, understood otherwise, to be taken with a press. */
  offer?: { words: string; onTake: () => void };
}

export function TextField(props: TextFieldProps) {
  const { label, hint, error, required, placeholder, inputMode, hideLabel, type, offer, ...rest } = props;
  const [looked, look] = useState(false);
  const secret = type === "password";
  return (
    <StyledText
      {...rest}
      type={secret && looked ? "text" : type}
      isRequired={required}
      isInvalid={Boolean(error)}
      aria-label={hideLabel ? label : undefined}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Input placeholder={placeholder} inputMode={inputMode} />
      {secret && (
        <InlineButton
          aria-pressed={looked}
          onPress={() => {
            look(!looked);
          }}
        >
          {looked ? "Hide it" : "Show what is typed"}
        </InlineButton>
      )}
      {hint && <Text slot="description">{hint}</Text>}
      {offer && (
        <span role="status">
          <InlineButton onPress={offer.onTake}>{offer.words}</InlineButton>
        </span>
      )}
      <FieldError>{error}</FieldError>
    </StyledText>
  );
}

/** A field of several lines, for pasted text. */
export function TextBox({
  label,
  value,
  onChange,
  lines = 4,
  placeholder,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** Default: 4. */
  lines?: number;
  placeholder?: string;
}) {
  return (
    <StyledText value={value} onChange={onChange}>
      <Label>{label}</Label>
      <TextArea rows={lines} placeholder={placeholder} />
    </StyledText>
  );
}

const StyledSlider = styled(AriaSlider)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  font-size: 0.9375rem;
  .track {
    grid-column: 1 / -1;
    height: 26px;
    position: relative;
  }
  .track::before {
    content: "";
    position: absolute;
    inset: 12px 0 auto 0;
    height: 2px;
    background: var(--line);
  }
  .thumb {
    width: 12px;
    height: 22px;
    border-radius: 6px;
    background: var(--seed);
    top: 13px;
  }
  .thumb[data-focus-visible] {
    outline: 3px solid var(--seed);
    outline-offset: 2px;
  }
`;

export function Slider({
  label,
  value,
  onChange,
  max = 5,
}: {
  label: string;
  value: number;
  onChange: (v: number) => void;
  max?: number;
}) {
  return (
    <StyledSlider
      value={value}
      onChange={(v) => {
        onChange(v as number);
      }}
      minValue={0}
      maxValue={max}
    >
      <Label>{label}</Label>
      <SliderOutput />
      <SliderTrack className="track">
        <SliderThumb className="thumb" />
      </SliderTrack>
    </StyledSlider>
  );
}

export const Fields = styled.div<{ $min?: number }>`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(${(p) => p.$min ?? 132}px, 1fr));
  gap: 12px 14px;
  ${phone} {
    grid-template-columns: 1fr 1fr;
  }
`;
