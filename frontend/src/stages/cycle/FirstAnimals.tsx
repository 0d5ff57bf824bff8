/** From proven capacity to the planned stock; or, with animals in, the emergency plan. */
import { useCompute, useWrite } from "../../api/hooks";
import type { CycleLog as Log, CycleState, Ramp } from "../../api/schemas";
import { Button, Caution, Figure, Lead, ProblemNote } from "../../kit";
import { Bar } from "../shared";
import { dater } from "./dates";
import { Table } from "./Ready";

interface Props {
  tankId: number;
  state: CycleState;
  log: Log;
}

export function FirstAnimals({ tankId, state, log }: Props) {
  const latest = (field: "ammonia_mg_n_l" | "nitrite_mg_n_l" | "nitrate_mg_n_l" | "ph" | "kh_dkh") =>
    (log.readings ?? []).reduce<number | null>((found, r) => r[field] ?? found, null);
  const animalsIn = log.method === "animals-in";
  const emergency = useCompute(
    "emergency-plan",
    animalsIn
      ? {
          net_l: log.net_l,
          ammonia_mg_n_l: latest("ammonia_mg_n_l") ?? 0,
          nitrite_mg_n_l: latest("nitrite_mg_n_l") ?? 0,
          nitrate_mg_n_l: latest("nitrate_mg_n_l"),
          ph: latest("ph") ?? log.start_ph,
          kh_dkh: latest("kh_dkh") ?? log.start_kh_dkh,
          temperature_c: log.temperature_c,
          salinity_g_kg: log.salinity_g_kg,
          load_mg_n_l_day: log.animals_in_mg_n_l_day,
          tap: log.tap,
        }
      : null,
  );
  if (animalsIn)
    return (
      <>
        <ProblemNote problem={emergency.error} />
        {emergency.data && (
          <>
            <h2>Animals are in: today</h2>
            <Lead>
              <Figure title="Emergency plan" lines={emergency.data.working}>
                {emergency.data.verdict}
              </Figure>
            </Lead>
            <Table>
              <thead>
                <tr>
                  <th>Poison</th>
                  <th>Now, mg N/L</th>
                  <th>At most, and by which rule</th>
                </tr>
              </thead>
              <tbody>
                {emergency.data.limits.map((l) => (
                  <tr key={l.what}>
                    <th scope="row">
                      {l.what} {l.over && <b>over</b>}
                    </th>
                    <td>{l.now_mg_n_l.toFixed(2)}</td>
                    <td>
                      {l.limit_mg_n_l.toFixed(2)}, {l.rule}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
            {emergency.data.changes.length > 0 && (
              <ol>
                {emergency.data.changes.map((c) => (
                  <li key={c.after_hours}>
                    {c.after_hours ? `After ${c.after_hours} hours` : "Now"}: {c.litres.toFixed(0)} L (
                    {(c.share * 100).toFixed(0)} %), leaves ammonia {c.ammonia_after_mg_n_l.toFixed(2)} and
                    nitrite {c.nitrite_after_mg_n_l.toFixed(2)} mg N/L at pH {c.after_ph.toFixed(1)}.
                  </li>
                ))}
              </ol>
            )}
            <Lead>
              Feeding: {emergency.data.feeding} Tests a day: {emergency.data.tests_per_day}.
            </Lead>
            {emergency.data.cautions.map((c) => (
              <Caution key={c}>{c}</Caution>
            ))}
            <Caution>{emergency.data.vet}</Caution>
          </>
        )}
      </>
    );
  if (!state.ramp)
    return <Lead>Choose the animals in Stock; then the order and the dates they come in stand here.</Lead>;
  return (
    <RampTable
      tankId={tankId}
      ramp={state.ramp}
      ready={state.readiness?.ready ?? false}
      stocked={state.stocked ?? false}
    />
  );
}

interface RampProps {
  tankId: number;
  ramp: Ramp;
  ready: boolean;
  stocked: boolean;
}

function RampTable({ tankId, ramp, ready, stocked }: RampProps) {
  const write = useWrite(tankId);
  const first = ramp.steps[0];
  const dateOf = dater(new Date());
  return (
    <>
      <h2>
        {ready
          ? "How many now, and how many later"
          : stocked
            ? "After a week of zeros: how many next"
            : "Once it has passed: how many, and when"}
      </h2>
      <Lead>
        <Figure title="Stocking" lines={ramp.working}>
          {ramp.verdict}
        </Figure>
        {!ready && !stocked && " Reckoned from the dose that is to be proven; none of it before that."}
      </Lead>
      {ramp.steps.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>{ready ? "Earliest" : "Day"}</th>
              <th>Add</th>
              <th>Load, and what comes first</th>
            </tr>
          </thead>
          <tbody>
            {ramp.steps.map((s) => (
              <tr key={s.day}>
                <th scope="row">{ready ? dateOf(s.day) : s.day}</th>
                <td>{s.add.map((a) => `${a.count} × ${a.common_name}`).join(", ")}</td>
                <td>
                  {s.load_mg_n_l_day.toFixed(2)} mg N/L a day, {(s.plan_share * 100).toFixed(0)} % of the
                  plan. {s.before}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {ramp.steps.length > 1 && <Lead>{ramp.load_test}</Lead>}
      {ready && first && (
        <Bar>
          <Button
            isDisabled={write.isPending}
            onPress={() => {
              for (const a of first.add)
                write.mutate({ body: { kind: "stocking", species_id: a.species_id, count: a.count } });
            }}
          >
            These are in
          </Button>
        </Bar>
      )}
      <ProblemNote problem={write.error} />
    </>
  );
}
