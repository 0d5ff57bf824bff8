/** A long part of a stage at an address of its own, with the way back. */
import type { ReactNode } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { Verdict } from "../kit";

interface Props {
  /** Address and name of the stage. */
  back: string;
  stage: string;
  title: string;
  children: ReactNode;
}

export function StagePart({ back, stage, title, children }: Props) {
  return (
    <Alone>
      <p>
        <Link to={back}>Back to {stage}</Link>
      </p>
      <Verdict $small>{title}</Verdict>
      {children}
    </Alone>
  );
}

const Alone = styled.div`
  display: grid;
  gap: 10px;
  max-width: 860px;
`;
