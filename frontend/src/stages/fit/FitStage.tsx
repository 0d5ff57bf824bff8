/** Fit: the plan on the section, what to cut, the steps in order, what could go wrong, and the flow proved. */
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useDraft } from "../../api/drafts";
import type { FitPlan, Layout } from "../../api/schemas";
import {
  Caution,
  Fields,
  Figure,
  Lead,
  NumberBox,
  PickOne,
  ProblemNote,
  Verdict,
  Waiting,
  YesNo,
} from "../../kit";
import { Section } from "../../section/Section";
import { fitPlan, SaveBar, TwoColumns, type StageProps } from "../shared";
import { Dangers } from "./Dangers";
import { Devices } from "./Devices";
import { FlowTests } from "./FlowTests";
import { MoveFilter } from "./MoveFilter";
import { Steps } from "./Steps";
import { useFitting } from "./useFitting";

export function FitStage({ tankId, standing, tables, rank, calibration }: StageProps) {
  const draft = useDraft<FitPlan>(tankId, "fit", fitPlan(standing), standing.fit_plan?.id ?? null);
  const layout = draft.value.layout ?? {};
  const { plan, choice, filter, v, fitting, flow, danger, steps } = useFitting(
    standing,
    tables,
    rank,
    layout,
  );
  const [mishap, setMishap] = useState<string | null>(null);
  const put = (change: Partial<Layout>) => {
    draft.set((now) => ({ ...now, layout: { ...now.layout, ...change } }));
  };
  const all = steps.data?.steps ?? [];
  const ticks = standing.steps_done ?? {};
  const done = all.filter((s) => s.id in ticks).length;
  const next = all.find((s) => !(s.id in ticks));
  if (!filter)
    return (
      <TwoColumns drawing={<Section plan={plan} volume={v} caption="The tank, before a filter is chosen." />}>
        <Verdict>Choose a filter first: the steps are made for it.</Verdict>
        <Lead>
          <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
        </Lead>
      </TwoColumns>
    );
  const computed = (flow.data?.pumped ?? flow.data?.lifted)?.delivered_lph;
  const answer = fitting.error ? undefined : fitting.data;
  const shown = danger.data?.mishaps.find((m) => m.what === mishap);
  const moving = (key: "intake_x_cm" | "outlet_x_cm" | "body_x_cm") => (cm: number) => {
    put({ [key]: cm });
  };
  return (
    <TwoColumns
      drawing={
        <>
          <Section
            plan={plan}
            volume={v}
            filter={filter}
            second={choice.second}
            fitting={answer}
            lookAt={next?.look_at ?? undefined}
            stopsBelowRimCm={shown?.stops_below_rim_cm}
            onMove={{
              intake: moving("intake_x_cm"),
              outlet: moving("outlet_x_cm"),
              body: moving("body_x_cm"),
            }}
            caption={`${filter.name} fitted to the tank, to scale. ${answer?.verdict ?? ""}`}
          />
          <ProblemNote problem={fitting.error} />
          {answer && answer.faults.length > 0 ? (
            <Faults aria-label="Faults in the plan">
              {answer.faults.map((f) => (
                <li key={f.what}>
                  {f.what} <b>{f.remedy}</b>
                </li>
              ))}
            </Faults>
          ) : null}
        </>
      }
      beside={
        <>
          {answer && answer.cuts.length > 0 && (
            <Cuts aria-label="Cut list">
              {answer.cuts.map((c) => (
                <li key={c.item}>
                  <b>
                    <Figure title={c.item} lines={answer.working}>
                      {c.amount.toFixed(0)} {c.unit === "cm" ? "cm" : "×"}
                    </Figure>{" "}
                    {c.item}
                  </b>
                  <small>{c.how}</small>
                </li>
              ))}
            </Cuts>
          )}
          {danger.data && <Dangers answer={danger.data} shown={mishap} onShow={setMishap} />}
          <FlowTests
            tankId={tankId}
            standing={standing}
            calibration={calibration}
            computed={computed}
            filter={filter}
          />
          <details>
            <summary>Replacing a filter, or moving the tank</summary>
            <MoveFilter />
          </details>
          <details>
            <summary>Devices: a flow meter, a smart plug</summary>
            <Devices tankId={tankId} />
          </details>
        </>
      }
    >
      <Verdict $small>
        {next ? (
          <>
            Next: <em>{next.title.toLowerCase()}.</em> {done} of {all.length} steps done.
          </>
        ) : all.length ? (
          <>Fitted: all {all.length} steps are done.</>
        ) : (
          `Fitting the ${filter.name}`
        )}
      </Verdict>
      <Lead>
        {computed !== undefined && flow.data && (
          <>
            As laid out it moves{" "}
            <Figure title="Flow as fitted" lines={flow.data.working}>
              {computed.toFixed(0)} L/h
            </Figure>
            .{" "}
          </>
        )}
        <Link to={`/tanks/${tankId}/sheet`}>The fitting sheet, to print</Link>
        {" · "}
        <a href={`/api/tanks/${tankId}/calendar.ics`} download>
          Checks as a calendar
        </a>
        {filter.air_l_min == null && (
          <>
            {" · "}
            <a href={`/api/tanks/${tankId}/plumbing.inp`} download>
              Plumbing as .inp
            </a>
          </>
        )}
      </Lead>
      <details>
        <summary>Where the parts go</summary>
        <Fields>
          <NumberBox
            label="Intake below water, cm"
            value={layout.intake_depth_cm ?? null}
            min={0}
            max={300}
            onChange={(cm) => {
              put({ intake_depth_cm: cm });
            }}
            hint="empty: three quarters down"
          />
          <NumberBox
            label="Outlet below water, cm"
            value={layout.outlet_depth_cm ?? 2}
            min={-100}
            max={300}
            onChange={(cm) => {
              put({ outlet_depth_cm: cm });
            }}
          />
          <NumberBox
            label="Tap above water, cm"
            value={layout.tap_above_water_cm ?? 6}
            min={-200}
            max={200}
            onChange={(cm) => {
              put({ tap_above_water_cm: cm });
            }}
          />
          <NumberBox
            label="Socket above floor, cm"
            value={layout.socket_height_cm ?? 30}
            min={0}
            max={300}
            onChange={(cm) => {
              put({ socket_height_cm: cm });
            }}
          />
          {filter.air_l_min != null && (
            <NumberBox
              label="Air pump above water, cm"
              value={layout.air_pump_above_water_cm ?? 10}
              min={-200}
              max={200}
              onChange={(cm) => {
                put({ air_pump_above_water_cm: cm });
              }}
            />
          )}
        </Fields>
        <PickOne
          label="Hose"
          value={layout.hose ?? "plain"}
          onChange={(hose) => {
            put({ hose });
          }}
          options={[
            ["plain", "plain"],
            ["ribbed", "ribbed, bends tighter"],
          ]}
        />
        {filter.air_l_min != null && (
          <YesNo
            label="Check valve in the air line"
            value={layout.check_valve ?? true}
            onChange={(check_valve) => {
              put({ check_valve });
            }}
          />
        )}
        <YesNo
          label="Drip loop in the cable"
          value={layout.drip_loop ?? true}
          onChange={(drip_loop) => {
            put({ drip_loop });
          }}
        />
        <YesNo
          label="Siphon break in the return"
          value={layout.siphon_break ?? false}
          onChange={(siphon_break) => {
            put({ siphon_break });
          }}
        />
        <SaveBar
          tankId={tankId}
          draft={draft}
          words="Save where things go"
          describe={(b) =>
            `intake ${b.layout?.intake_depth_cm ?? "as usual"}, outlet ${b.layout?.outlet_depth_cm ?? 2} cm under water`
          }
        />
      </details>
      {draft.dirty && (
        <Caution>The layout on the drawing is not saved yet; it is kept on this device.</Caution>
      )}
      {steps.isPending && <Waiting>Laying out the steps…</Waiting>}
      <ProblemNote problem={steps.error} />
      <Steps tankId={tankId} steps={all} done={ticks} />
    </TwoColumns>
  );
}

const Faults = styled.ol`
  list-style: decimal;
  padding-left: 24px;
  color: var(--alarm);
  font-size: 15.5px;
  display: grid;
  gap: 4px;
`;
const Cuts = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 4px 18px;
  font-size: 15.5px;
  small {
    display: block;
    color: var(--ink-soft);
    font-size: 14px;
  }
`;
