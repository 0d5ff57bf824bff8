/** Tabs of a stage: one panel shown, switched by press or arrow key. */
import type { ReactNode } from "react";
import { Tab, TabList, TabPanel, Tabs as AriaTabs } from "react-aria-components";
import { styled } from "styled-components";
import { phone } from "./theme";

export interface Leaf {
  id: string;
  title: string;
  content: () => ReactNode;
}

interface TabsProps {
  label: string;
  leaves: Leaf[];
  chosen: string;
  onChoose: (id: string) => void;
}

export function Tabs({ label, leaves, chosen, onChoose }: TabsProps) {
  return (
    <Box
      selectedKey={chosen}
      onSelectionChange={(key) => {
        onChoose(String(key));
      }}
    >
      <TabList aria-label={label}>
        {leaves.map((l) => (
          <Tab key={l.id} id={l.id}>
            {l.title}
          </Tab>
        ))}
      </TabList>
      {leaves.map((l) => (
        <TabPanel key={l.id} id={l.id}>
          {l.id === chosen && l.content()}
        </TabPanel>
      ))}
    </Box>
  );
}

const Box = styled(AriaTabs)`
  display: grid;
  gap: 10px;
  min-width: 0;
  [role="tablist"] {
    display: flex;
    flex-wrap: wrap;
    gap: 0 18px;
    border-bottom: 1px solid var(--line);
  }
  [role="tab"] {
    padding: 8px 0 6px;
    min-height: 40px;
    cursor: pointer;
    color: var(--ink-soft);
    border-bottom: 3px solid transparent;
    margin-bottom: -1px;
  }
  [role="tab"][data-selected] {
    color: var(--ink);
    font-weight: 600;
    border-bottom-color: var(--seed);
  }
  [role="tabpanel"] {
    display: grid;
    gap: 12px;
    min-width: 0;
    outline-offset: 4px;
  }
  [role="tabpanel"] section {
    display: grid;
    gap: 10px;
    min-width: 0;
  }
  ${phone} {
    [role="tab"] {
      min-height: 44px;
    }
  }
`;
