/** Legend of the currents overlay, with its figures. */
import { styled } from "styled-components";
import type { CurrentsAnswer } from "../api/schemas";
import { Figure } from "../kit";

export function Moving({ currents }: { currents: CurrentsAnswer }) {
  if (currents.jets.length === 0) return null;
  return (
    <Marks>
      {currents.jets.some((jet) => jet.reach_cm > 0) && "Pale: the jet, as far as it is felt. "}
      {currents.rest_share < 0.98 && "Inside the dots: calm enough for all. "}
      {currents.settles_share > 0.05 && "Brown: where dirt settles. "}
      <Figure title="Currents" lines={currents.working}>
        {currents.verdict}
      </Figure>
    </Marks>
  );
}

const Marks = styled.p`
  color: var(--ink-soft);
  font-size: 0.9375rem;
`;
