/** How a first tank begins: its first figures, and where they lead. */
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { beGuest } from "../shared/guest";
import { newKey } from "../api/outbox";
import { range } from "../api/range";
import type { Body, NewTankIn, Tables, TankPlan } from "../api/schemas";
import { useEnter } from "../api/session";
import { tablesOptions } from "../api/tables";
import { Bar, Button, Fields, ProblemNote } from "../kit";
import { QuantityField } from "../kit/quantities";
import { SITUATIONS, type Stands } from "../shared/situations";

export type Way = "new" | "trouble" | "cycle" | "box" | "runs" | "look";

/** How the tank of each way stands, and what its button says. */
const BEGINS: Partial<Record<Way, { stands: Stands; next: string; stage?: string }>> = {
  // Its sizes were asked for here.
  new: { stands: "empty", stage: "stock", next: "Next: who will live in it" },
  trouble: { stands: "animals-in", next: "Next: what to do now" },
  cycle: { stands: "cycling", next: "Next: its tests" },
  runs: { stands: "running", next: "Next: who lives in it" },
};

export interface Sizes {
  litres: number | null;
  length: number | null;
  width: number | null;
  height: number | null;
}

export const NO_SIZES: Sizes = { litres: null, length: null, width: null, height: null };

/** A typed tank, as the drawing and the plan take it; null before its first figure. */
export function planOf(
  { tank, surroundings }: TankPlan,
  { litres, length, width, height }: Sizes,
): TankPlan | null {
  if (length !== null || width !== null || height !== null)
    return {
      kind: "tank-plan",
      by_litres: false,
      tank: {
        ...tank,
        length_cm: length ?? tank.length_cm,
        width_cm: width ?? tank.width_cm,
        height_cm: height ?? tank.height_cm,
        counted_l: litres,
      },
      surroundings,
    };
  return null;
}

export interface PanelProps {
  way: Way;
  sizes: Sizes;
  onSizes: (sizes: Sizes) => void;
  tables?: Tables;
  demoOpen: boolean;
}

export function BeginForm({ way, sizes, onSizes, tables }: PanelProps) {
  const [since, setSince] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = useBegin(way, tables);
  const how = BEGINS[way];
  const day = how && SITUATIONS[how.stands].since;
  const set = (key: keyof Sizes) => ({
    value: sizes[key],
    onChange: (value: number) => {
      onSizes({ ...sizes, [key]: value });
    },
    onClear: () => {
      onSizes({ ...sizes, [key]: null });
    },
  });
  const go = async () => {
    setBusy(true);
    try {
      await begin(sizes, since);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
      setBusy(false);
    }
  };
  return (
    <Ask>
      <h2>How big is it?</h2>
      <Fields $min={112}>
        <QuantityField label="It holds" unit="L" {...range("CounterQuestion.litres")} {...set("litres")} />
        <QuantityField
          label="or length"
          unit="cm"
          onVolume={(litres) => {
            onSizes({ ...sizes, litres, length: null });
          }}
          {...range("TankVolumeQuestion.length_cm")}
          {...set("length")}
        />
        <QuantityField label="Width" unit="cm" {...range("TankVolumeQuestion.width_cm")} {...set("width")} />
        <QuantityField
          label="Height"
          unit="cm"
          {...range("TankVolumeQuestion.height_cm")}
          {...set("height")}
        />
      </Fields>
      {day && (
        <Since>
          {day}{" "}
          <input
            type="date"
            value={since}
            max={new Date().toISOString().slice(0, 10)}
            onChange={(e) => {
              setSince(e.target.value);
            }}
          />
        </Since>
      )}
      <ProblemNote problem={problem} />
      <Bar>
        <Button isDisabled={busy} onPress={() => void go()}>
          {how?.next}
        </Button>
        <span>{sizes === NO_SIZES ? "Not known yet? It can be said later." : ""}</span>
      </Bar>
    </Ask>
  );
}

/** Makes a guest and the tank, writes what was typed, and opens the stage where this way begins. */
function useBegin(way: Way, tables?: Tables) {
  const enter = useEnter();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const key = useRef(newKey());
  return async (sizes: Sizes, since: string) => {
    const how = BEGINS[way];
    if (!how) return;
    enter(await beGuest());
    // Whoever is quicker than the tables waits for them: what was typed is never left out.
    const { form_defaults } = tables ?? (await queries.query(tablesOptions));
    const plan = planOf(form_defaults.tank, sizes);
    const body: NewTankIn = { name: "My tank", stands: how.stands };
    if (since) body.since = new Date(`${since}T12:00`).toISOString();
    if (!plan && sizes.litres !== null) body.litres = sizes.litres;
    const tank = await ask(client.POST("/api/tanks", { body, headers: { "Idempotency-Key": key.current } }));
    if (plan) await write(tank.id, plan);
    await queries.invalidateQueries({ queryKey: ["tanks"] });
    await navigate(`/tanks/${tank.id}/${how.stage ?? SITUATIONS[how.stands].stage}`);
  };
}

async function write(tankId: number, body: Body): Promise<void> {
  const entry = { key: newKey(), at: new Date().toISOString(), body };
  await ask(
    client.POST("/api/tanks/{tank_id}/entries", { params: { path: { tank_id: tankId } }, body: entry }),
  );
}

const Since = styled.label`
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  input {
    min-height: 44px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 4px 8px;
    font: inherit;
    color: inherit;
  }
`;

export const Ask = styled.section`
  display: grid;
  gap: 8px;
  max-width: 640px;
`;
