/** The weeks from today: due tasks of every tank. */
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useAhead } from "../api/tanks";
import type { AheadRow } from "../api/schemas";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { Button, Lead, phone, Verdict } from "../kit";
import { dayKey, weekdayNames, weeksFrom } from "./days";
import { LOCALE } from "../quantity/locale";

/** Weeks on a page, and by how many it turns. */
const WEEKS = 5;
const TURN = 4;

export default function Month() {
  const ahead = useAhead();
  const now = new Date();
  const [shift, setShift] = useState(0);
  const days = weeksFrom(
    new Date(now.getFullYear(), now.getMonth(), now.getDate() + 7 * TURN * shift),
    WEEKS,
  );
  const rows = ahead.data?.rows ?? [];
  const late = rows.filter((r) => dayKey(new Date(r.due.at)) < dayKey(now));
  const title = [days[0], days.at(-1)]
    .map((day) => day?.toLocaleDateString(LOCALE, { day: "numeric", month: "long" }))
    .join(" to ");
  return (
    <Page name="Month">
      <title>{`${title} · Reedmace`}</title>
      <Stack>
        <Opening asked={[ahead]}>Looking ahead in every tank…</Opening>
        {ahead.data && (
          <>
            <Verdict>{ahead.data.verdict}</Verdict>
            {ahead.data.at_odds.length > 0 && (
              <Lead>
                The figures of {ahead.data.at_odds.join(" and ")} do not agree; nothing of theirs stands here.
              </Lead>
            )}
            <Turn>
              <h2>{title}</h2>
              <Button
                $quiet
                isDisabled={shift <= 0}
                onPress={() => {
                  setShift(shift - 1);
                }}
              >
                Earlier weeks
              </Button>
              <Button
                $quiet
                isDisabled={shift >= 2}
                onPress={() => {
                  setShift(shift + 1);
                }}
              >
                Later weeks
              </Button>
            </Turn>
            {shift === 0 && late.length > 0 && (
              <Late aria-label="Late">
                <h3>Late</h3>
                <Things rows={late} />
              </Late>
            )}
            <Days days={days} rows={rows.filter((r) => !late.includes(r))} today={dayKey(now)} />
          </>
        )}
      </Stack>
    </Page>
  );
}

function Days({ days, rows, today }: { days: Date[]; rows: AheadRow[]; today: string }) {
  const byDay = new Map<string, AheadRow[]>();
  for (const row of rows) {
    const key = dayKey(new Date(row.due.at));
    byDay.set(key, [...(byDay.get(key) ?? []), row]);
  }
  return (
    <Grid>
      <Names aria-hidden="true">
        {weekdayNames().map((name) => (
          <span key={name}>{name}</span>
        ))}
      </Names>
      <ol>
        {days.map((day) => {
          const key = dayKey(day);
          const here = byDay.get(key) ?? [];
          return (
            <li
              key={key}
              data-today={key === today || undefined}
              data-past={key < today || undefined}
              data-other={day.getMonth() % 2 === 1 || undefined}
              data-empty={here.length === 0 || undefined}
            >
              <time dateTime={key}>
                <span>
                  {day.toLocaleDateString(LOCALE, { weekday: "long", day: "numeric", month: "long" })}
                </span>
                <i aria-hidden="true">
                  {day.getDate() === 1
                    ? day.toLocaleDateString(LOCALE, { day: "numeric", month: "short" })
                    : day.getDate()}
                </i>
              </time>
              <Things rows={here} />
            </li>
          );
        })}
      </ol>
    </Grid>
  );
}

/** Due tasks of one day, by tank. */
function Things({ rows }: { rows: AheadRow[] }) {
  if (rows.length === 0) return null;
  const tanks = new Map<number, AheadRow[]>();
  for (const row of rows) tanks.set(row.tank_id, [...(tanks.get(row.tank_id) ?? []), row]);
  return (
    <ul>
      {[...tanks.values()].map((of) => (
        <li key={of[0]?.tank_id}>
          <b>{of[0]?.tank}</b>
          {of.map((row) => (
            <Link key={row.due.key} to={`/tanks/${row.tank_id}/${row.due.stage}`}>
              {row.due.title}
            </Link>
          ))}
        </li>
      ))}
    </ul>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
`;
const Turn = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: center;
  h2 {
    min-width: 210px;
  }
`;
const Late = styled.section`
  border-left: 4px solid var(--seed);
  background: var(--silt);
  padding: 8px 14px;
  > ul {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 28px;
  }
  a {
    display: block;
    padding: 3px 0;
    min-height: 26px;
  }
  ${phone} {
    a {
      min-height: 44px;
      display: flex;
      align-items: center;
    }
  }
`;
const Names = styled.div`
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  color: var(--ink-soft);
  ${phone} {
    display: none;
  }
`;
const Grid = styled.section`
  > ol {
    display: grid;
    grid-template-columns: repeat(7, minmax(0, 1fr));
    border-top: 1px solid var(--line);
    border-left: 1px solid var(--line);
  }
  > ol > li {
    min-height: 84px;
    padding: 4px 8px 8px;
    border-right: 1px solid var(--line);
    border-bottom: 1px solid var(--line);
    font-size: 0.9375rem;
    overflow-wrap: anywhere;
  }
  time {
    color: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  time span {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  time i {
    font-style: normal;
  }
  > ol > li[data-other] {
    background: var(--silt);
  }
  > ol > li[data-past] {
    /* Hatched, not faded: a faded number cannot be read. */
    background: repeating-linear-gradient(-45deg, transparent 0 7px, var(--silt-deep) 7px 8px);
  }
  > ol > li[data-today] time {
    color: var(--seed);
    font-weight: 700;
  }
  > ol > li[data-today] {
    box-shadow: inset 0 3px 0 var(--seed);
  }
  li li {
    padding-top: 3px;
    line-height: 1.25;
  }
  li li b {
    display: block;
    font-weight: 600;
  }
  li li a {
    display: block;
    padding: 3px 0;
    min-height: 26px;
  }
  ${phone} {
    > ol {
      grid-template-columns: minmax(0, 1fr);
    }
    > ol > li {
      min-height: 0;
    }
    > ol > li[data-empty] {
      display: none;
    }
    time i {
      display: none;
    }
    time span {
      position: static;
      width: auto;
      height: auto;
      clip-path: none;
    }
    li li a {
      min-height: 44px;
      display: flex;
      align-items: center;
    }
    li li b {
      padding-top: 4px;
    }
  }
`;
