/** Stocking ramp; with animals in, above it, today's emergency plan. */
import { nowDate } from "../../api/clock";
import { useDone } from "../../api/entries";
import type { Body, CycleState, Emergency as Plan, Ramp } from "../../api/schemas";
import { Button, Capital, Caution, Figure, Lead, ProblemNote } from "../../kit";
import { ppmWords, type KitPpm } from "../../quantity/ppm";
import { Bar } from "../../kit";
import { dater } from "../../shared/cycleDates";
import { Table } from "./Ready";

interface Props {
  tankId: number;
  state: CycleState;
  shares: KitPpm;
}

export function FirstAnimals({ tankId, state, shares }: Props) {
  const animalsIn = state.animals_in;
  return (
    <>
      <Harm state={state} shares={shares} animalsIn={animalsIn} />
      {state.ramp ? (
        <RampTable
          tankId={tankId}
          ramp={state.ramp}
          shares={shares}
          ready={state.readiness?.ready ?? false}
          stocked={state.stocked}
        />
      ) : (
        !animalsIn && (
          <Lead>Choose the animals in Stock; then the order and the dates they come in stand here.</Lead>
        )
      )}
    </>
  );
}

function Harm({ state, shares, animalsIn }: Omit<Props, "tankId"> & { animalsIn: boolean }) {
  const { emergency } = state;
  if (emergency)
    return animalsIn || emergency.in_danger ? <Emergency plan={emergency} shares={shares} /> : null;
  if (!animalsIn) return null;
  return (
    <Lead>
      Test ammonia, nitrite and pH: what animals bear, and today&rsquo;s changes, are worked out from them.
    </Lead>
  );
}

function Emergency({ plan, shares }: { plan: Plan; shares: KitPpm }) {
  return (
    <section aria-label="Animals are in: today">
      <h2>Animals are in: today</h2>
      <Lead>
        <Figure title="Emergency plan" lines={plan.working}>
          {plan.verdict}
        </Figure>
      </Lead>
      <Table>
        <thead>
          <tr>
            <th>Poison</th>
            <th>Now</th>
            <th>At most, and by which rule</th>
          </tr>
        </thead>
        <tbody>
          {plan.limits.map((l) => (
            <tr key={l.what}>
              <th scope="row">
                <Capital>{l.what}</Capital> {l.over && <b>over</b>}
              </th>
              <td>{ppmWords(l.now_mg_n_l, l.what, shares)}</td>
              <td>
                {ppmWords(l.limit_mg_n_l, l.what, shares)}, {l.rule}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {plan.steps.length > 0 && (
        <ol>
          {plan.steps.map((s) => (
            <li key={`${s.title}${s.after_hours}`}>
              {s.after_hours ? `After ${s.after_hours} hours` : "Now"}: <b>{s.title}.</b> {s.how} {s.ph_words}
            </li>
          ))}
        </ol>
      )}
      <Lead>
        Feeding: {plan.feeding} Tests a day: {plan.tests_per_day}.
      </Lead>
      <h3>What shortens it</h3>
      <ol>
        {plan.help.map((h) => (
          <li key={h}>{h}</li>
        ))}
      </ol>
      {plan.cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <Caution>{plan.vet}</Caution>
    </section>
  );
}

interface RampProps {
  tankId: number;
  ramp: Ramp;
  shares: KitPpm;
  ready: boolean;
  stocked: boolean;
}

function RampTable({ tankId, ramp, shares, ready, stocked }: RampProps) {
  const write = useDone(tankId);
  const first = ramp.steps[0];
  const dateOf = dater(nowDate());
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
                  {ppmWords(s.load_mg_n_l_day, "ammonia", shares)} of ammonia a day,{" "}
                  {(s.plan_share * 100).toFixed(0)} % of the plan. {s.before}
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
            isDisabled={write.busy || write.kept(...first.add.map(putIn))}
            onPress={() => {
              for (const a of first.add) write.mutate({ body: putIn(a) });
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

function putIn({ species_id, count }: Ramp["steps"][number]["add"][number]): Body {
  return { kind: "stocking", species_id, count };
}
