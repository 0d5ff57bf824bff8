/** Choices: one of a few, one of many, yes or no. */
import {
  Button as AriaButton,
  CheckboxButton,
  CheckboxField,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  RadioButton,
  RadioField,
  RadioGroup,
  Select as AriaSelect,
  SelectValue,
} from "react-aria-components";
import { styled } from "styled-components";
import { fieldBox } from "./controls";
import { phone } from "./theme";

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 3px;
  .react-aria-Label {
    font-size: 0.9375rem;
    color: var(--ink-soft);
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;
const Choice = styled(RadioButton)`
  min-height: 40px;
  display: inline-flex;
  align-items: center;
  padding: 4px 12px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--field);
  cursor: pointer;
  &[data-selected] {
    background: var(--reed-fill);
    border-color: var(--reed);
    font-weight: 600;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--seed);
    outline-offset: 2px;
  }
  ${phone} {
    min-height: 44px;
  }
`;

interface PickOneProps<T extends string> {
  label: string;
  value: T;
  onChange: (value: T) => void;
  options: readonly (readonly [T, string])[];
}

export function PickOne<T extends string>({ label, value, onChange, options }: PickOneProps<T>) {
  return (
    <Choices
      value={value}
      onChange={(v) => {
        onChange(v as T);
      }}
      orientation="horizontal"
    >
      <Label>{label}</Label>
      <div>
        {options.map(([key, text]) => (
          <RadioField key={key} value={key}>
            <Choice>{text}</Choice>
          </RadioField>
        ))}
      </div>
    </Choices>
  );
}

const StyledSelect = styled(AriaSelect)`
  ${fieldBox}
  button {
    min-height: 40px;
    padding: 6px 10px;
    text-align: left;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    display: flex;
    justify-content: space-between;
    gap: 10px;
  }
  ${phone} {
    button {
      min-height: 44px;
    }
  }
`;
export const MenuBox = styled(Popover)`
  background: var(--field);
  border: 1px solid var(--line);
  border-radius: 4px;
  box-shadow: 0 6px 20px var(--shade);
  min-width: var(--trigger-width);
  max-height: 340px;
  overflow: auto;
  color: var(--ink);
  [role="option"],
  [role="menuitem"] {
    padding: 8px 12px;
    cursor: pointer;
    min-height: 40px;
    display: flex;
    align-items: center;
    gap: 10px;
    justify-content: space-between;
  }
  [data-focused] {
    background: var(--reed-fill);
  }
  [data-selected] {
    font-weight: 600;
  }
`;

export function Select<T extends string>({ label, value, onChange, options }: PickOneProps<T>) {
  return (
    <StyledSelect
      value={value}
      onChange={(k) => {
        onChange(k as T);
      }}
    >
      <Label>{label}</Label>
      <AriaButton>
        <SelectValue />
        <span aria-hidden="true">▾</span>
      </AriaButton>
      <MenuBox>
        <ListBox>
          {options.map(([key, text]) => (
            <ListBoxItem key={key} id={key} textValue={text}>
              {text}
            </ListBoxItem>
          ))}
        </ListBox>
      </MenuBox>
    </StyledSelect>
  );
}

interface YesNoProps {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}

/** A checkbox. */
export function YesNo({ label, value, onChange }: YesNoProps) {
  return (
    <CheckboxField isSelected={value} onChange={onChange}>
      <YesNoButton>
        <i aria-hidden="true">{value ? "✓" : ""}</i>
        {label}
      </YesNoButton>
    </CheckboxField>
  );
}
const YesNoButton = styled(CheckboxButton)`
  display: flex;
  gap: 9px;
  align-items: center;
  min-height: 40px;
  cursor: pointer;
  i {
    font-style: normal;
    flex: none;
    width: 22px;
    height: 22px;
    border: 1px solid var(--ink-soft);
    border-radius: 4px;
    background: var(--field);
    display: grid;
    place-items: center;
    font-size: 0.875rem;
  }
  &[data-selected] i {
    background: var(--reed);
    border-color: var(--reed);
    color: var(--on-ink);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--seed);
    outline-offset: 2px;
  }
  ${phone} {
    min-height: 44px;
  }
`;
