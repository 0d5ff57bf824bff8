/** One sump under several tanks: flow of each, the run-back of all, and the shared water. */
import { range } from "../api/range";
import { styled } from "styled-components";
import { useBlanks } from "../api/tables";
import type { RoomPlan, RoomView } from "../api/schemas";
import { Button, Caution, Figure, Lead, YesNo } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { bare, fixed, show } from "../quantity/format";
import { SUMP_SIZES } from "../shared/sumpSizes";
import { Fields, Figures as Table } from "./parts";

interface Props {
  plan: RoomPlan;
  view: RoomView;
  put: (change: Partial<RoomPlan>) => void;
}
type RoomSump = NonNullable<RoomPlan["sump"]>;

export function SharedSump({ plan, view, put }: Props) {
  const start = useBlanks().room_sump;
  const { sump } = plan;
  const change = (next: Partial<RoomSump>) => {
    put({ sump: { ...(sump ?? start), ...next } });
  };
  return (
    <details open={sump != null}>
      <summary>One sump under several tanks</summary>
      <YesNo
        label="Some of these tanks share a sump"
        value={sump != null}
        onChange={(on) => {
          put({ sump: on ? { ...start, tank_ids: plan.spots.map((s) => s.tank_id) } : null });
        }}
      />
      {sump && view.sump && (
        <Answer
          answer={view.sump}
          onSet={(tap_shares) => {
            change({ tap_shares });
          }}
        />
      )}
      {sump && (
        <>
          <Fields>
            <QuantityField
              label="Return pump, nothing to lift"
              unit="L/h"
              value={sump.pump_lph}
              onChange={(pump_lph) => {
                change({ pump_lph });
              }}
            />
            <NumberBox
              label="Gives up at, m"
              value={sump.pump_head_m}
              {...range("RoomSump.pump_head_m")}
              onChange={(pump_head_m) => {
                change({ pump_head_m });
              }}
            />
            <QuantityField
              label="Bore of each branch"
              unit="mm"
              value={sump.bore_mm}
              onChange={(bore_mm) => {
                change({ bore_mm });
              }}
            />
            {SUMP_SIZES.map(([key, label]) => (
              <QuantityField
                key={key}
                label={label}
                unit="cm"
                value={sump.sump[key]}
                onChange={(cm) => {
                  change({ sump: { ...sump.sump, [key]: cm } });
                }}
              />
            ))}
          </Fields>
          <TanksOnSump
            rows={view.rows}
            ids={sump.tank_ids}
            onChange={(tank_ids) => {
              change({ tank_ids });
            }}
          />
        </>
      )}
    </details>
  );
}

interface TanksOnSumpProps {
  rows: RoomView["rows"];
  ids: number[];
  onChange: (ids: number[]) => void;
}

function TanksOnSump({ rows, ids, onChange }: TanksOnSumpProps) {
  return (
    <Ticks aria-label="On the sump">
      {rows.map((r) => (
        <YesNo
          key={r.tank_id}
          label={r.name}
          value={ids.includes(r.tank_id)}
          onChange={(on) => {
            onChange(on ? [...ids, r.tank_id] : ids.filter((id) => id !== r.tank_id));
          }}
        />
      ))}
    </Ticks>
  );
}

interface AnswerProps {
  answer: NonNullable<RoomView["sump"]>;
  onSet: (taps: RoomSump["tap_shares"]) => void;
}

function Answer({ answer, onSet }: AnswerProps) {
  return (
    <>
      <p>
        <Figure title="The shared sump" lines={answer.working}>
          {answer.verdict}
        </Figure>
      </p>
      {answer.remedies.map((words) => (
        <Lead key={words}>{words}</Lead>
      ))}
      {answer.cautions.map((words) => (
        <Caution key={words}>{words}</Caution>
      ))}
      <Table>
        <thead>
          <tr>
            <th scope="col">Tank</th>
            <th scope="col">Gets</th>
            <th scope="col">Volumes an hour</th>
            <th scope="col">Drain takes</th>
            <th scope="col">Runs back</th>
            <th scope="col">Tap for all alike</th>
          </tr>
        </thead>
        <tbody>
          {answer.tanks.map((t) => (
            <tr key={t.key} data-fault={!t.drains || t.flow_lph < 1 || undefined}>
              <th scope="row">{t.name}</th>
              <td>{show(t.flow_lph, "L/h")}</td>
              <td>{fixed(t.turnovers_per_hour, 1)}</td>
              <td>{bare(t.drain_lph, "L/h")}</td>
              <td>{show(t.run_back_l, "L", 1)}</td>
              <td>{(100 * t.even_tap_share).toFixed(0)} %</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {answer.even_turnovers_per_hour > 0 && (
        <Button
          $quiet
          onPress={() => {
            onSet(
              Object.fromEntries(
                answer.tanks.map((t) => [t.key, Math.max(Number(t.even_tap_share.toFixed(3)), 0.02)]),
              ),
            );
          }}
        >
          Set the taps so that all turn over alike
        </Button>
      )}
      <Lead>{answer.water_words}</Lead>
    </>
  );
}

const Ticks = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
`;
