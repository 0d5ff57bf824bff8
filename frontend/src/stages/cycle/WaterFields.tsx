/** Fields for the water of the cycle, and its tap. */
import { range } from "../../api/range";
import { useLoadedTables } from "../../api/tables";
import type { CyclePlan, CycleStartView } from "../../api/schemas";
import { Fields, Select, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import type { PlanFieldsProps } from "./MethodFields";

interface TapProps {
  tap: CyclePlan["tap"];
  set: (change: Partial<CyclePlan["tap"]>) => void;
}

function TapFields({ tap, set }: TapProps) {
  const { nitrate, ammonia } = useLoadedTables().nitrogen_share;
  return (
    <>
      <Select
        label="Tap is treated with"
        value={tap.chlorine}
        onChange={(chlorine) => {
          set({ chlorine });
        }}
        options={[
          ["unknown", "I do not know"],
          ["chlorine", "chlorine"],
          ["chloramine", "chloramine"],
          ["none", "nothing (own well)"],
        ]}
      />
      <NumberBox
        label="Tap ammonia, ppm"
        value={Number((tap.ammonia_mg_n_l / ammonia).toFixed(2))}
        {...range("TapWater.ammonia_mg_n_l", 1 / ammonia)}
        onChange={(v) => {
          set({ ammonia_mg_n_l: v * ammonia });
        }}
      />
      <NumberBox
        label="Tap nitrate, ppm"
        value={Number((tap.nitrate_mg_n_l / nitrate).toFixed(1))}
        {...range("TapWater.nitrate_mg_n_l", 1 / nitrate)}
        onChange={(v) => {
          set({ nitrate_mg_n_l: v * nitrate });
        }}
      />
    </>
  );
}

export function WaterFields({ plan, set, view }: PlanFieldsProps & { view?: CycleStartView }) {
  const setTap = (change: Partial<CyclePlan["tap"]>) => {
    set({ tap: { ...plan.tap, ...change } });
  };
  return (
    <>
      <h2>The water, and the tap</h2>
      <Fields $min={168}>
        <QuantityField
          label="Water"
          unit="°C"
          value={plan.temperature_c}
          onChange={(v) => {
            set({ temperature_c: v });
          }}
        />
        <QuantityField
          label="KH at the start"
          unit="dKH"
          value={plan.start_kh_dkh}
          onChange={(v) => {
            set({ start_kh_dkh: v });
          }}
        />
        <NumberBox
          label="pH at the start"
          value={plan.start_ph}
          {...range("CyclePlan.start_ph")}
          onChange={(v) => {
            set({ start_ph: v });
          }}
        />
        <NumberBox
          label="Salt, g/kg"
          value={plan.salinity_g_kg}
          {...range("CyclePlan.salinity_g_kg")}
          onChange={(salinity_g_kg) => {
            set({ salinity_g_kg });
          }}
        />
        <TapFields tap={plan.tap} set={setTap} />
      </Fields>
      {view?.marine && (
        <YesNo
          label="A skimmer runs"
          value={plan.skimmer_running}
          onChange={(skimmer_running) => {
            set({ skimmer_running });
          }}
        />
      )}
    </>
  );
}
