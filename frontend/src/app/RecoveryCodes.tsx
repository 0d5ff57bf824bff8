/** Recovery codes for a lost password: shown once, to be written down. */
import { useState } from "react";
import { styled } from "styled-components";
import { Button, InlineButton } from "../kit";

interface Props {
  codes: string[];
  /** Label of the button that continues; none where the codes are shown beside other content. */
  onDone?: () => void;
}

export function RecoveryCodes({ codes, onDone }: Props) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(codes.join("\n"));
    setCopied(true);
  };
  return (
    <section aria-label="Recovery codes">
      <p role="status">
        Write these down, or print them, and keep them away from this device. Each lets you back in once when
        the password is lost; nobody else can.
      </p>
      <List>
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </List>
      <Both>
        {onDone && <Button onPress={onDone}>I have them: go on</Button>}
        <InlineButton
          onPress={() => {
            window.print();
          }}
        >
          Print them
        </InlineButton>
        {/* Without TLS there is no clipboard API. */}
        {"clipboard" in navigator && (
          <InlineButton onPress={() => void copy()}>{copied ? "Copied" : "Copy them"}</InlineButton>
        )}
      </Both>
    </section>
  );
}

const List = styled.ul`
  list-style: none;
  margin: 10px 0;
  padding: 12px 16px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 6px 24px;
  background: var(--silt);
  font-variant-numeric: tabular-nums;
  font-size: 1.0625rem;
  letter-spacing: 0.04em;
`;
const Both = styled.div`
  display: flex;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
`;
