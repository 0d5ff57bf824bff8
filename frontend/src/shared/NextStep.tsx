/** The next step on the way to animals, one press away; nothing on the stage where it is taken. */
import { Link, useLocation } from "react-router";
import { styled } from "styled-components";
import { useTank } from "../api/tanks";
import { phone } from "../kit";

export function NextStep({ tankId }: { tankId: number }) {
  const next = useTank(tankId).data?.tank.next;
  const { pathname } = useLocation();
  if (!next || pathname.endsWith(`/${next.stage}`)) return null;
  return <AsButton to={`/tanks/${tankId}/${next.stage}`}>Next: {next.words}</AsButton>;
}

const AsButton = styled(Link)`
  display: inline-grid;
  width: fit-content;
  align-items: center;
  min-height: 40px;
  padding: 6px 16px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  background: var(--ink);
  color: var(--on-ink);
  font-weight: 600;
  text-decoration: none;
  &:hover {
    border-color: var(--seed);
  }
  ${phone} {
    min-height: 44px;
  }
`;
