/** Navigation of the six stages, each with its state in a few words. */
import { NavLink } from "react-router";
import { styled } from "styled-components";
import type { Stage } from "../api/schemas";
import { phone } from "../kit";

const NAMES: Record<Stage["stage"], string> = {
  tank: "Tank",
  stock: "Stock",
  filter: "Filter",
  fit: "Fit",
  cycle: "Cycle",
  keep: "Keep",
};

export function StageNav({ tankId, stages }: { tankId: number; stages: Stage[] }) {
  return (
    <nav aria-label="Stages">
      <Line>
        {stages.map((s) => (
          <li key={s.stage} data-state={s.state}>
            <NavLink to={`/tanks/${tankId}/${s.stage}`}>
              <i aria-hidden="true" />
              <b>{NAMES[s.stage]}</b>
              <span>{s.words}</span>
            </NavLink>
          </li>
        ))}
      </Line>
    </nav>
  );
}

const Line = styled.ol`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  li {
    position: relative;
  }
  li::before {
    content: "";
    position: absolute;
    top: 9px;
    left: 0;
    right: 0;
    border-top: 2px dotted var(--line);
  }
  li[data-state="done"]::before {
    border-top: 2px solid var(--reed);
  }
  a {
    display: grid;
    padding: 18px 8px 2px 0;
    color: var(--ink);
    text-decoration: none;
    position: relative;
    min-height: 58px;
    align-content: start;
  }
  i {
    position: absolute;
    left: 0;
    top: 4px;
    width: 12px;
    height: 12px;
    border-radius: 6px;
    border: 2px solid var(--ink-soft);
    background: var(--paper);
  }
  li[data-state="done"] i {
    background: var(--reed);
    border-color: var(--reed);
  }
  li[data-state="begun"] i {
    border-color: var(--reed);
  }
  a[aria-current="page"] i {
    top: -4px;
    height: 22px;
    border-color: var(--seed);
    background: var(--seed);
  }
  b {
    font-size: 0.9688rem;
    line-height: 1.25;
  }
  span {
    font-size: 0.9062rem;
    line-height: 1.2;
    color: var(--ink-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  a[aria-current="page"] b {
    color: var(--seed);
  }
  ${phone} {
    a {
      padding: 20px 2px 4px 0;
      min-height: 44px;
    }
    span {
      display: none;
    }
    b {
      font-size: 0.9375rem;
    }
  }
`;
