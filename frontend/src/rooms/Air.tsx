/** Air of a room: pump and main, each outlet's share, the balancing valves. */
import { range } from "../api/range";
import type { RoomPlan, RoomView } from "../api/schemas";
import { Button, Figure, InlineButton, Lead, TextField, YesNo } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { Fields, Figures as Table } from "./parts";
import { TimedLine } from "./TimedLine";
import { fixed, money, show } from "../quantity/format";

interface Props {
  plan: RoomPlan;
  view: RoomView;
  put: (change: Partial<RoomPlan>) => void;
}

export function Air({ plan, view, put }: Props) {
  const { air } = view;
  return (
    <section aria-label="Air">
      <h2>
        Air{" "}
        <small>
          {view.sockets_used} {view.sockets_used === 1 ? "socket" : "sockets"}, {view.watts.toFixed(0)} W of
          pumps; with heaters {view.kwh_year.toFixed(0)} kWh a year, costing {money(view.money_year, 0)}
        </small>
      </h2>
      {view.air_words && <Lead>{view.air_words}</Lead>}
      {air && (
        <>
          <p>
            <Figure title="The room’s air" lines={air.working}>
              {air.verdict}
            </Figure>
          </p>
          {[...air.remedies, ...air.notes].map((words) => (
            <Lead key={words}>{words}</Lead>
          ))}
          {air.assumed.length > 0 && <Lead>Assumed: {air.assumed.join("; ")}.</Lead>}
          <Outlets plan={plan} air={air} put={put} />
        </>
      )}
      <Pumps plan={plan} view={view} put={put} />
    </section>
  );
}

type RoomAir = NonNullable<RoomView["air"]>;

function Outlets({ plan, air, put }: { plan: RoomPlan; air: RoomAir; put: Props["put"] }) {
  const balanced = Object.fromEntries(
    air.outlets.map((o) => [o.key, Number(o.balanced_open_share.toFixed(3))]),
  );
  return (
    <details>
      <summary>Every outlet, and its valve</summary>
      <Table>
        <thead>
          <tr>
            <th scope="col">Outlet</th>
            <th scope="col">Air</th>
            <th scope="col">of what it wants</th>
            <th scope="col">Water</th>
            <th scope="col">Pressure</th>
            <th scope="col">Valve, open</th>
          </tr>
        </thead>
        <tbody>
          {air.outlets.map((o) => (
            <tr key={o.key} data-fault={o.blocked || undefined}>
              <th scope="row">{o.name}</th>
              <td>{fixed(o.air_l_min, 2)} L/min</td>
              <td>{(100 * o.got_share).toFixed(0)} %</td>
              <td>{o.water_lph == null ? "" : show(o.water_lph, "L/h")}</td>
              <td>{fixed(o.node_kpa, 1)} kPa</td>
              <td>
                {(100 * (plan.open_shares[o.key] ?? 1)).toFixed(0)} %, best{" "}
                {(100 * o.balanced_open_share).toFixed(0)} %
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Button
        $quiet
        onPress={() => {
          put({ open_shares: { ...plan.open_shares, ...balanced } });
        }}
      >
        Set the valves so that all get the same share
      </Button>
    </details>
  );
}

function Pumps({ plan, view, put }: Props) {
  const change = (at: number, pump: Partial<Pump>) => {
    put({ pumps: plan.pumps.map((p, i) => (i === at ? { ...p, pump: { ...p.pump, ...pump } } : p)) });
  };
  const add = () => {
    const n = plan.pumps.length + 1;
    const pump = {
      key: `p${n}`,
      name: `Air pump ${n}`,
      node: "pump",
      watts: null,
      l_min: null,
      kpa: null,
      outlets_count: null,
    };
    put({ pumps: [...plan.pumps, { x_cm: plan.width_cm - 20, y_cm: plan.main.y_cm, pump }] });
  };
  return (
    <details open={plan.pumps.length === 0 || view.air_words !== null || view.air?.told === false}>
      <summary>The pump and the main</summary>
      {plan.pumps.map(({ pump }, i) => (
        <PumpFields
          key={i}
          pump={pump}
          onChange={(figures) => {
            change(i, figures);
          }}
          onRemove={() => {
            put({ pumps: plan.pumps.filter((_, n) => n !== i) });
          }}
        />
      ))}
      {plan.pumps.length < 8 && (
        <Button $quiet onPress={add}>
          {plan.pumps.length ? "One more pump" : "There is an air pump"}
        </Button>
      )}
      <MainFields main={plan.main} put={put} />
    </details>
  );
}

type Pump = RoomPlan["pumps"][number]["pump"];

const PUMP_FIGURES = [
  ["l_min", "L/min on its box"],
  ["kpa", "kPa on its box"],
  ["watts", "Watts"],
  ["outlets_count", "Sold for so many outlets"],
] as const;

interface PumpProps {
  pump: Pump;
  onChange: (change: Partial<Pump>) => void;
  onRemove: () => void;
}

function PumpFields({ pump, onChange, onRemove }: PumpProps) {
  return (
    <>
      <Fields>
        <TextField
          label="Pump"
          value={pump.name}
          onChange={(name) => {
            if (name.trim()) onChange({ name });
          }}
        />
        {PUMP_FIGURES.map(([key, label]) => (
          <NumberBox
            key={key}
            label={label}
            value={pump[key] ?? null}
            {...range(`RoomPump.${key}`)}
            onChange={(figure) => {
              onChange({ [key]: figure });
            }}
            onClear={() => {
              onChange({ [key]: null });
            }}
          />
        ))}
        <InlineButton onPress={onRemove}>Take {pump.name} away</InlineButton>
      </Fields>
      {pump.l_min == null && (
        <TimedLine
          onFound={(l_min) => {
            onChange({ l_min });
          }}
        />
      )}
    </>
  );
}

function MainFields({ main, put }: { main: RoomPlan["main"]; put: Props["put"] }) {
  return (
    <Fields>
      <QuantityField
        label="Main, height on the wall"
        unit="cm"
        value={main.y_cm}
        {...range("AirMain.y_cm")}
        onChange={(y_cm) => {
          put({ main: { ...main, y_cm } });
        }}
      />
      <QuantityField
        label="Main bore"
        unit="mm"
        value={main.bore_mm}
        {...range("AirMain.bore_mm")}
        onChange={(bore_mm) => {
          put({ main: { ...main, bore_mm } });
        }}
      />
      <YesNo
        label="Closed to a ring"
        value={main.ring}
        onChange={(ring) => {
          put({ main: { ...main, ring } });
        }}
      />
    </Fields>
  );
}
