/** Air, heat, and in salt water a skimmer: their source, and whether it is enough. */
import { range } from "../../api/range";
import type { FilterPlan, FilterView } from "../../api/schemas";
import { Caution, Fields, Figure, PickOne, Term, YesNo } from "../../kit";
import { NumberBox } from "../../kit/quantities";

interface Props {
  plan: FilterPlan;
  view: FilterView;
  onChange: (change: Partial<FilterPlan>) => void;
}

export function SuppliesForm({ plan, view, onChange }: Props) {
  const { supplies } = view;
  return (
    <>
      {supplies.air_words != null && <Air plan={plan} supplies={supplies} onChange={onChange} />}
      <Warmth plan={plan} supplies={supplies} onChange={onChange} />
      {supplies.skimmer && <Skimmer plan={plan} answer={supplies.skimmer} onChange={onChange} />}
    </>
  );
}

type PartProps = Pick<Props, "plan" | "onChange"> & { supplies: FilterView["supplies"] };

function Air({ plan, supplies, onChange }: PartProps) {
  const { air } = plan;
  const set = (change: Partial<FilterPlan["air"]>) => {
    onChange({ air: { ...air, ...change } });
  };
  return (
    <>
      <PickOne
        label="Air comes from"
        value={air.source ?? "unsaid"}
        onChange={(source) => {
          set({ source: source === "unsaid" ? null : source });
        }}
        options={[
          ["own", "a pump of this tank's own"],
          ["room", "the room's pump"],
          ["unsaid", "not settled"],
        ]}
      />
      <Fields>
        <NumberBox
          label="Air pump, L/min on its box"
          value={air.pump_l_min ?? null}
          {...range("AirSource.pump_l_min")}
          onChange={(pump_l_min) => {
            set({ pump_l_min });
          }}
        />
        <NumberBox
          label="Pressure at which it gives up, kPa"
          value={air.pump_kpa ?? null}
          {...range("AirSource.pump_kpa")}
          onChange={(pump_kpa) => {
            set({ pump_kpa });
          }}
        />
      </Fields>
      <p>
        Both stand on the pump’s box, or on its plate: <Term of="kpa">what kPa are</Term>.
      </p>
      <YesNo
        label="Air stones in the lift tubes: quieter bubbles, until they clog"
        value={air.stones}
        onChange={(stones) => {
          set({ stones });
        }}
      />
      <p role="status">
        {supplies.air ? (
          <Figure title="Air supply" lines={supplies.air.working}>
            {supplies.air_words}
          </Figure>
        ) : (
          supplies.air_words
        )}{" "}
        {supplies.air?.remedies.join(" ")}
      </p>
    </>
  );
}

function Warmth({ plan, supplies, onChange }: PartProps) {
  const { heater } = plan;
  const answer = supplies.heater;
  return (
    <>
      <Fields>
        <NumberBox
          label="Heater at hand, W"
          value={heater?.watts ?? null}
          {...range("Heater.watts")}
          onChange={(watts) => {
            onChange({ heater: { stands_in: heater?.stands_in ?? "tank", watts } });
          }}
          onClear={() => {
            onChange({ heater: null });
          }}
          hint="empty: none"
        />
      </Fields>
      {heater && (
        <PickOne
          label="The heater stands in"
          value={heater.stands_in}
          onChange={(stands_in) => {
            onChange({ heater: { ...heater, stands_in } });
          }}
          options={[
            ["tank", "the tank"],
            ["sump", "the sump"],
            ["filter", "the filter"],
          ]}
        />
      )}
      {answer ? (
        <p role="status">
          <Figure title="Heater" lines={answer.working}>
            {answer.verdict}
          </Figure>{" "}
          {answer.kwh_year > 0 && `It takes about ${answer.kwh_year.toFixed(0)} kWh a year. `}
          {supplies.assumed.length > 0 && `Assumed: ${supplies.assumed.join("; ")}.`}
        </p>
      ) : (
        <p>Say how warm the water is to be in Tank, or choose animals: then the heater is reckoned.</p>
      )}
      {answer?.caution && <Caution>{answer.caution}</Caution>}
    </>
  );
}

type SkimmerProps = Pick<Props, "plan" | "onChange"> & {
  answer: NonNullable<FilterView["supplies"]["skimmer"]>;
};

function Skimmer({ plan, answer, onChange }: SkimmerProps) {
  return (
    <>
      <Fields>
        <NumberBox
          label="Skimmer at hand, litres on its box"
          value={plan.skimmer?.label_l ?? null}
          {...range("Skimmer.label_l")}
          onChange={(label_l) => {
            onChange({ skimmer: { label_l } });
          }}
          onClear={() => {
            onChange({ skimmer: null });
          }}
          hint="empty: none"
        />
      </Fields>
      <p role="status">
        <Figure title="Foam skimmer" lines={answer.working}>
          {answer.verdict}
        </Figure>
      </p>
    </>
  );
}
