/** Broods of all tanks on one board: what each eats, what comes next, until when its tank does. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useWrite } from "../api/entries";
import { useHeld } from "../api/useOutbox";
import { newKey } from "../api/outbox";
import { range } from "../api/range";
import { invalidate } from "../api/replaceData";
import { useBroods } from "../api/rooms";
import type { Body, BroodRow } from "../api/schemas";
import { useLoadedTables } from "../api/tables";
import { useTanks } from "../api/tanks";
import { BroodCurve } from "../charts/BroodCurve";
import { Button, Figure, InlineButton, phone, PickOne, ProblemNote, Select, Verdict } from "../kit";
import { NumberBox } from "../kit/quantities";
import { LOCALE } from "../quantity/locale";
import { KEPT_HERE } from "../shared/keptHere";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { SpeciesPicker } from "../shared/SpeciesPicker";
import { When } from "../shared/When";

export default function BroodsPage() {
  const broods = useBroods();
  const tanks = useTanks();
  const rows = broods.data?.broods ?? [];
  return (
    <Page name="Broods">
      <title>Broods · Reedmace</title>
      <Stack>
        <Opening asked={[broods, tanks]}>Looking at the broods…</Opening>
        {broods.data && <Verdict>{broods.data.verdict}</Verdict>}
        <Sides $alone={rows.length === 0}>
          {rows.length > 0 && (
            <Board>
              {rows.map((row) => (
                <BroodCard
                  key={`${row.tank_id}-${row.key}`}
                  row={row}
                  others={(tanks.data?.tanks ?? []).filter((t) => t.id !== row.tank_id)}
                />
              ))}
            </Board>
          )}
          {broods.data && tanks.data && <NewBrood tanks={tanks.data.tanks} />}
        </Sides>
      </Stack>
    </Page>
  );
}

type Step = Extract<Body, { kind: "brood" }>["what"];

const NEXT: Record<BroodRow["next_step"], string> = {
  spawned: "Eggs are laid",
  hatched: "They have hatched",
  "free-swimming": "They swim freely",
  counted: "Count them",
};

/** Write a step of a brood; the board follows. */
function useStep(tankId: number) {
  const queries = useQueryClient();
  const write = useWrite(tankId);
  const waiting = useHeld().some((h) => h.tankId === tankId && h.entry.body.kind === "brood");
  return {
    ...write,
    waiting,
    step: (row: Pick<BroodRow, "key" | "species_id">, what: Step, count?: number, at?: string) => {
      const body: Body = { kind: "brood", brood: row.key, species_id: row.species_id, what };
      if (count !== undefined) body.count = count;
      write.mutate(at ? { body, at } : { body }, { onSuccess: () => void invalidate(queries) });
    },
  };
}

interface Named {
  id: number;
  name: string;
}

function BroodCard({ row, others }: { row: BroodRow; others: Named[] }) {
  const { step, error, waiting, isPending } = useStep(row.tank_id);
  const [open, setOpen] = useState(false);
  const counts = row.next_step === "counted";
  return (
    <Card aria-label={`${row.common_name} in ${row.tank}`}>
      <h2>
        {row.common_name} in <Link to={`/tanks/${row.tank_id}/keep`}>{row.tank}</Link>
      </h2>
      <p>
        {row.answer ? (
          <Figure title={row.common_name} lines={row.answer.working}>
            {row.verdict}
          </Figure>
        ) : (
          row.verdict
        )}
      </p>
      <Facts row={row} />
      {row.answer && row.answer.swims_in_days === null && (
        <details>
          <summary>How they grow</summary>
          <BroodCurve answer={row.answer} smallInDays={row.small_at ? daysUntil(row.small_at) : null} />
        </details>
      )}
      <Line>
        {!counts && (
          <Button
            isDisabled={isPending}
            onPress={() => {
              step(row, row.next_step);
            }}
          >
            {NEXT[row.next_step]}
          </Button>
        )}
        {counts && (
          <Button
            $quiet={row.counted !== null}
            onPress={() => {
              setOpen(!open);
            }}
          >
            {row.counted === null ? NEXT.counted : "Count, sell, move"}
          </Button>
        )}
        <InlineButton
          onPress={() => {
            step(row, "ended");
          }}
        >
          It is over
        </InlineButton>
      </Line>
      {open && counts && <Counting row={row} others={others} step={step} />}
      {waiting && <p role="status">{KEPT_HERE}</p>}
      <ProblemNote problem={error} />
    </Card>
  );
}

function daysUntil(iso: string): number {
  return (new Date(iso).getTime() - Date.now()) / 86_400_000;
}

function day(iso: string): string {
  return new Date(iso).toLocaleDateString(LOCALE, { day: "numeric", month: "short" });
}

/** What is known of a brood besides its verdict. */
function Facts({ row }: { row: BroodRow }) {
  const gone = [
    [row.sold_count, "sold"],
    [row.moved_count, "moved"],
    [row.lost_count, "lost"],
  ] as const;
  const facts = [
    row.free_at ? `swimming since ${day(row.free_at)}` : null,
    row.next_at && row.next_step !== "counted" ? `to be expected ${day(row.next_at)}` : null,
    row.answer && row.answer.food_g_day > 0
      ? `${row.answer.food_g_day.toPrecision(2)} g of food a day, ${row.answer.load_mg_n_day.toPrecision(2)} mg N`
      : null,
    row.small_at ? `tank too small from ${day(row.small_at)}` : null,
    ...gone.map(([count, word]) => (count > 0 ? `${count} ${word}` : null)),
  ].filter((fact) => fact !== null);
  return facts.length > 0 ? <Small>{facts.join(" · ")}</Small> : null;
}

interface CountingProps {
  row: BroodRow;
  others: Named[];
  step: ReturnType<typeof useStep>["step"];
}

function Counting({ row, others, step }: CountingProps) {
  const [count, setCount] = useState(row.counted ?? row.answer?.count ?? 0);
  const [to, setTo] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const queries = useQueryClient();
  const target = Number(to || others[0]?.id);
  const move = async () => {
    setProblem(null);
    const body = {
      key: newKey(),
      brood: row.key,
      from_id: row.tank_id,
      to_id: target,
      count: Math.round(count),
    };
    try {
      await ask(client.POST("/api/broods/move", { body }));
      await invalidate(queries);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const said = (["counted", "sold", "lost"] as const).map((what) => (
    <Button
      key={what}
      $quiet={what !== "counted"}
      onPress={() => {
        step(row, what, Math.round(count));
      }}
    >
      {{ counted: "are there now", sold: "sold", lost: "lost" }[what]}
    </Button>
  ));
  return (
    <Form>
      <NumberBox label="How many" value={count} {...range("BroodStep.count")} onChange={setCount} />
      <Line>{said}</Line>
      {others.length > 0 && (
        <Line>
          <Select
            label="Into"
            value={String(target)}
            onChange={setTo}
            options={others.map((t): [string, string] => [String(t.id), t.name])}
          />
          <Button $quiet isDisabled={count < 1} onPress={() => void move()}>
            Move them
          </Button>
        </Line>
      )}
      <ProblemNote problem={problem} />
    </Form>
  );
}

const BEGINNINGS: readonly (readonly [Step, string])[] = [
  ["pair", "a pair is together"],
  ["spawned", "eggs are laid"],
  ["free-swimming", "young swim freely"],
];

function NewBrood({ tanks }: { tanks: Named[] }) {
  const tables = useLoadedTables();
  const [tank, setTank] = useState("");
  const [species, setSpecies] = useState("");
  const [what, setWhat] = useState<Step>("free-swimming");
  const [at, setAt] = useState<string | null>(null);
  const tankId = Number(tank || tanks[0]?.id || 0);
  const { step, error, waiting, isPending } = useStep(tankId);
  const chosen = tables.species.find((s) => s.id === species);
  if (tanks.length === 0) return null;
  return (
    <section aria-label="A brood begins">
      <h2>A brood begins</h2>
      <Form>
        <Select
          label="In which tank"
          value={String(tankId)}
          onChange={setTank}
          options={tanks.map((t): [string, string] => [String(t.id), t.name])}
        />
        <SpeciesPicker species={tables.species} taken={[]} onPick={setSpecies} />
        {chosen && <p>{chosen.common_name}</p>}
        <PickOne label="How far it is" value={what} onChange={setWhat} options={BEGINNINGS} />
        <When at={at} onChange={setAt} />
        <Button
          isDisabled={!chosen || isPending}
          onPress={() => {
            step({ key: newKey().slice(0, 40), species_id: species }, what, undefined, at ?? undefined);
            setSpecies("");
          }}
        >
          Write it down
        </Button>
        {waiting && <p role="status">{KEPT_HERE}</p>}
        <ProblemNote problem={error} />
      </Form>
    </section>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 16px;
`;
const Sides = styled.div<{ $alone: boolean }>`
  display: grid;
  grid-template-columns: ${({ $alone }) => ($alone ? "minmax(0, 420px)" : "minmax(0, 1fr) 320px")};
  gap: 32px;
  align-items: start;
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Board = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 16px 28px;
`;
const Card = styled.article`
  display: grid;
  gap: 8px;
  align-content: start;
  border-top: 1px solid var(--line);
  padding-top: 12px;
`;
const Small = styled.p`
  color: var(--ink-soft);
  font-size: 0.9rem;
`;
const Form = styled.div`
  display: grid;
  gap: 10px;
  justify-items: start;
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
`;
