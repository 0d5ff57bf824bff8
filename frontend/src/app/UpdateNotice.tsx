/** A newer build is installed: applied when the keeper agrees, never in the middle of a task. */
import { styled } from "styled-components";
import { useRegisterSW } from "virtual:pwa-register/react";
import { InlineButton } from "../kit";

export function UpdateNotice() {
  const {
    needRefresh: [ready, setReady],
    updateServiceWorker,
  } = useRegisterSW();
  if (!ready) return null;
  return (
    <Notice role="status">
      A newer Reedmace is ready.{" "}
      <InlineButton onPress={() => void updateServiceWorker(true)}>Use it now</InlineButton>{" "}
      <InlineButton
        onPress={() => {
          setReady(false);
        }}
      >
        Later
      </InlineButton>
    </Notice>
  );
}

const Notice = styled.p`
  margin: 0;
  padding: 6px 26px;
  background: var(--seed-fill);
`;
