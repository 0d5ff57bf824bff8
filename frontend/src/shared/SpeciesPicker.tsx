/** A field that finds an animal by any of its names. */
import { useEffect, useState } from "react";
import { Button as AriaButton, ComboBox, Input, Label, ListBox, ListBoxItem } from "react-aria-components";
import { styled } from "styled-components";
import type { Species } from "../api/schemas";
import { FieldBox, MenuBox } from "../kit";

export function SpeciesPicker({
  species,
  taken,
  onPick,
}: {
  species: Species[];
  taken: string[];
  onPick: (id: string) => void;
}) {
  const [text, setText] = useState("");
  // After a selection the list closes; the next field is the number.
  const [picked, setPicked] = useState<string | null>(null);
  useEffect(() => {
    if (picked !== null)
      document.querySelector<HTMLInputElement>(`[data-count="${CSS.escape(picked)}"] input`)?.focus();
  }, [picked]);
  const open = species.filter((s) => !taken.includes(s.id));
  return (
    <FieldBox>
      <ComboBox
        key={picked}
        inputValue={text}
        onInputChange={setText}
        value={null}
        onChange={(key) => {
          if (key === null) return;
          onPick(String(key));
          setPicked(String(key));
          setText("");
        }}
        menuTrigger="focus"
        allowsEmptyCollection
      >
        <Label>Add an animal</Label>
        <Row>
          <Input placeholder="harlequin, goldfish, shrimp…" />
          <AriaButton aria-label="Show all animals">▾</AriaButton>
        </Row>
        <MenuBox>
          <ListBox items={open} renderEmptyState={() => <Empty>No animal of that name is listed yet.</Empty>}>
            {(s) => (
              <ListBoxItem
                id={s.id}
                textValue={[s.common_name, s.group, s.scientific_name, ...s.known_as].join(" ")}
              >
                <span>{s.common_name}</span>
                <small>{s.group}</small>
              </ListBoxItem>
            )}
          </ListBox>
        </MenuBox>
      </ComboBox>
    </FieldBox>
  );
}

const Empty = styled.p`
  padding: 10px 12px;
`;
const Row = styled.div`
  display: flex;
  max-width: 420px;
  button {
    width: 44px;
    border: 1px solid var(--line);
    border-left: 0;
    background: var(--field);
    border-radius: 0 4px 4px 0;
  }
`;
