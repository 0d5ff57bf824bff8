/** Spare sponges of a tank with their dates, and those in transport with a countdown. */
import { nowMs } from "../../api/clock";
import { range } from "../../api/range";
import { useEffect, useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import { useToday } from "../../api/tanks";
import { useWrite } from "../../api/entries";
import type { Body, Seed } from "../../api/schemas";
import {
  Button,
  Caution,
  Fields,
  Figure,
  InlineButton,
  Lead,
  ProblemNote,
  Select,
  TextField,
  Term,
} from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { Bar } from "../../kit";
import { LOCALE } from "../../quantity/locale";

type Travels = NonNullable<Extract<Body, { kind: "seed-move" }>["travels"]>;
const TRAVELS: readonly (readonly [Travels, string])[] = [
  ["wet-open", "under water, lid off"],
  ["wet-closed", "under water, lid on"],
  ["damp", "damp, in a bag"],
  ["dry", "dry"],
];

export function Seeds({ tankId }: { tankId: number }) {
  const today = useToday();
  const rows = (today.data?.seeds ?? []).filter((r) => r.tank_id === tankId);
  const [adding, setAdding] = useState(false);
  return (
    <section aria-label="Spare sponges">
      <h2>
        Spare sponges and media, <Term of="seed">seeding</Term> here
      </h2>
      {rows.length === 0 && (
        <Lead>
          None. A spare in this filter gives the next tank, or a hospital tank, its film in a month.
        </Lead>
      )}
      <List>
        {rows.map((r) => (
          <SeedLine key={r.seed.key} tankId={tankId} seed={r.seed} />
        ))}
      </List>
      {adding ? (
        <AddSeed
          tankId={tankId}
          onDone={() => {
            setAdding(false);
          }}
        />
      ) : (
        <InlineButton
          onPress={() => {
            setAdding(true);
          }}
        >
          Put a spare in to seed
        </InlineButton>
      )}
    </section>
  );
}

function SeedLine({ tankId, seed }: { tankId: number; seed: Seed }) {
  const write = useWrite(tankId);
  const now = useMinute(seed.where === "on-the-way");
  const [moving, setMoving] = useState(false);
  const [travels, setTravels] = useState<Travels>("wet-open");
  const [to, setTo] = useState("");
  const minutes = seed.out_at ? Math.max((now - new Date(seed.out_at).getTime()) / 60_000, 0) : 0;
  const onTheWay = seed.where === "on-the-way";
  const answer = useCompute(
    "sponge-seed",
    onTheWay ? { ...seed.question, minutes_out: Math.min(Math.round(minutes), 3000) } : null,
  );
  const shown = (onTheWay ? answer.data : null) ?? seed.answer;
  const move = (phase: Phase) => {
    write.mutate({ body: { kind: "seed-move", seed_key: seed.key, phase, travels, to } });
    setMoving(false);
  };
  return (
    <li data-where={seed.where}>
      <div>
        <b>{seed.name}</b> <small>since {new Date(seed.since).toLocaleDateString(LOCALE)}</small>
        <p>
          <SeedWords seed={seed} shown={shown} />
        </p>
        {seed.note && <small>{seed.note}</small>}
      </div>
      <Grown aria-hidden="true">
        <i style={{ width: `${seed.answer.grown_share * 100}%` }} />
      </Grown>
      {seed.where === "seeding" && !moving && (
        <Button
          $quiet
          isDisabled={!seed.answer.may_go}
          aria-label={`Move it: ${seed.name}`}
          onPress={() => {
            setMoving(true);
          }}
        >
          Move it
        </Button>
      )}
      {onTheWay && (
        <div className="clock" role="timer" aria-label={`${seed.name}: time out of water`}>
          <b>{Math.floor(minutes)} min</b> out
        </div>
      )}
      {(moving || onTheWay) && (
        <div className="way">
          <ol>
            {shown.steps.map((s) => (
              <li key={s.id}>
                <b>{s.title}.</b> {s.detail}
              </li>
            ))}
          </ol>
          <Fields $min={170}>
            {!onTheWay && (
              <Select label="It travels" value={travels} onChange={setTravels} options={TRAVELS} />
            )}
            <TextField label="Where to" value={to} onChange={setTo} />
          </Fields>
          <MoveButtons
            onTheWay={onTheWay}
            onMove={move}
            onStay={() => {
              setMoving(false);
            }}
          />
          <Caution>Wash hands after; net, bag and bucket of this tank only, or disinfected.</Caution>
        </div>
      )}
      <ProblemNote problem={write.error} />
    </li>
  );
}

function SeedWords({ seed, shown }: { seed: Seed; shown: Seed["answer"] }) {
  if (seed.where === "moved")
    return `Moved${seed.moved_to ? ` to ${seed.moved_to}` : ""}, with ${(seed.answer.alive_share * 100).toFixed(0)} % of its film alive.`;
  return (
    <Figure title={seed.name} lines={shown.working}>
      {shown.verdict}
    </Figure>
  );
}

type Phase = "out" | "in" | "back";

function MoveButtons({
  onTheWay,
  onMove,
  onStay,
}: {
  onTheWay: boolean;
  onMove: (phase: Phase) => void;
  onStay: () => void;
}) {
  const to = (phase: Phase) => () => {
    onMove(phase);
  };
  return (
    <Bar>
      {onTheWay ? (
        <>
          <Button onPress={to("in")}>It is in</Button>
          <Button $quiet onPress={to("back")}>
            Put back to seed
          </Button>
        </>
      ) : (
        <>
          <Button onPress={to("out")}>Out now: start the clock</Button>
          <Button $quiet onPress={onStay}>
            Not yet
          </Button>
        </>
      )}
    </Bar>
  );
}

/** The time, updated every ten seconds while running. */
function useMinute(running: boolean): number {
  const [now, setNow] = useState(nowMs);
  useEffect(() => {
    if (!running) return;
    setNow(nowMs());
    const timer = setInterval(() => {
      setNow(nowMs());
    }, 10_000);
    return () => {
      clearInterval(timer);
    };
  }, [running]);
  return now;
}

function AddSeed({ tankId, onDone }: { tankId: number; onDone: () => void }) {
  const [name, setName] = useState("");
  const [share, setShare] = useState(useBlanks().seed.media_share * 100);
  const [health, setHealth] =
    useState<NonNullable<Extract<Body, { kind: "seed" }>["disease_note"]>>("none-seen");
  const write = useWrite(tankId);
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (!name.trim()) return;
    write.mutate(
      { body: { kind: "seed", name: name.trim(), media_share: share / 100, disease_note: health } },
      { onSuccess: onDone },
    );
  };
  return (
    <form onSubmit={submit} aria-label="Put a spare in to seed">
      <Fields $min={170}>
        <TextField label="What is put in" value={name} onChange={setName} placeholder="Spare sponge" />
        <NumberBox
          label="% of its next filter's media"
          value={share}
          {...range("SeedSponge.media_share", 100)}
          onChange={setShare}
        />
        <Select
          label="Disease in this tank"
          value={health}
          onChange={setHealth}
          options={[
            ["none-seen", "none seen"],
            ["treated", "had and treated"],
            ["sick-now", "sick now"],
            ["unknown", "not known"],
          ]}
        />
      </Fields>
      <Bar>
        <Button type="submit" isDisabled={!name.trim() || write.isPending}>
          It is in
        </Button>
        <Button $quiet onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <ProblemNote problem={write.error} />
    </form>
  );
}

const List = styled.ul`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 120px auto;
    gap: 6px 16px;
    align-items: center;
    border-top: 1px solid var(--line);
    padding: 6px 0;
  }
  > li[data-where="moved"] {
    color: var(--ink-soft);
  }
  small {
    color: var(--ink-soft);
    font-size: 0.9062rem;
  }
  .clock {
    font-size: 1.1875rem;
  }
  .way {
    grid-column: 1 / -1;
    display: grid;
    gap: 8px;
    background: var(--silt);
    padding: 10px 12px;
  }
  @media (max-width: 45em) {
    > li {
      grid-template-columns: 1fr auto;
    }
  }
`;
const Grown = styled.div`
  height: 10px;
  border: 1px solid var(--reed);
  i {
    display: block;
    height: 100%;
    background: var(--reed-fill);
  }
  @media (max-width: 45em) {
    display: none;
  }
`;
