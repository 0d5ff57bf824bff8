/** Positions of the parts of one filter, as numbers beside the drawing's handles. */
import { range } from "../../api/range";
import type { Draft } from "../../api/drafts";
import type { FitPlan, FittedView, Layout } from "../../api/schemas";
import { Fields, PickOne, YesNo } from "../../kit";
import { QuantityField } from "../../kit/quantities";
import { SaveBar } from "../../shared/SaveBar";
import { show } from "../../quantity/format";

interface Props {
  tankId: number;
  draft: Draft<FitPlan>;
  one: FittedView;
  put: (change: Partial<Layout>) => void;
}

export function LayoutForm({ tankId, draft, one, put }: Props) {
  return (
    <details>
      <summary>Where the parts go</summary>
      <Depths one={one} put={put} />
      <Choices one={one} put={put} />
      <SaveBar
        tankId={tankId}
        draft={draft}
        words="Save where things go"
        describe={(b) => {
          const there = b.places[one.installed.key];
          return `${one.installed.filter.name}: intake ${depthWords(there?.intake_depth_cm)}, outlet ${depthWords(there?.outlet_depth_cm)} under water`;
        }}
      />
    </details>
  );
}

type PartsProps = Pick<Props, "one" | "put">;

function Depths({ one, put }: PartsProps) {
  const { filter, layout, plan } = one.installed;
  const has = (role: string) => plan.parts.some((p) => p.role === role);
  return (
    <Fields>
      {has("intake") && (
        <QuantityField
          label="Intake below water"
          unit="cm"
          value={layout.intake_depth_cm ?? null}
          {...range("Layout.intake_depth_cm")}
          onChange={(cm) => {
            put({ intake_depth_cm: cm });
          }}
          hint={`empty: as usual, ${show(plan.intake_depth_cm, "cm")}`}
        />
      )}
      {has("outlet") && (
        <QuantityField
          label="Outlet below water"
          unit="cm"
          value={layout.outlet_depth_cm}
          {...range("Layout.outlet_depth_cm")}
          onChange={(cm) => {
            put({ outlet_depth_cm: cm });
          }}
        />
      )}
      {has("tap") && (
        <QuantityField
          label="Tap above water"
          unit="cm"
          value={layout.tap_above_water_cm}
          {...range("Layout.tap_above_water_cm")}
          onChange={(cm) => {
            put({ tap_above_water_cm: cm });
          }}
        />
      )}
      <QuantityField
        label="Socket above floor"
        unit="cm"
        value={layout.socket_height_cm}
        {...range("Layout.socket_height_cm")}
        onChange={(cm) => {
          put({ socket_height_cm: cm });
        }}
      />
      {filter.air_l_min != null && (
        <QuantityField
          label="Air pump above water"
          unit="cm"
          value={layout.air_pump_above_water_cm}
          {...range("Layout.air_pump_above_water_cm")}
          onChange={(cm) => {
            put({ air_pump_above_water_cm: cm });
          }}
        />
      )}
    </Fields>
  );
}

function Choices({ one, put }: PartsProps) {
  const { filter, layout, plan } = one.installed;
  const air = filter.air_l_min != null;
  const outlet = plan.parts.some((p) => p.role === "outlet");
  const back = plan.runs.some((r) => r.role === "return-hose");
  return (
    <>
      {outlet && !air && (
        <YesNo
          label="Outlet turned against the glass"
          value={layout.outlet_to_glass}
          onChange={(outlet_to_glass) => {
            put({ outlet_to_glass });
          }}
        />
      )}
      {back && (
        <PickOne
          label="Hose"
          value={layout.hose}
          onChange={(hose) => {
            put({ hose });
          }}
          options={[
            ["plain", "plain"],
            ["ribbed", "ribbed, bends tighter"],
          ]}
        />
      )}
      {air && (
        <YesNo
          label="Check valve in the air line"
          value={layout.check_valve}
          onChange={(check_valve) => {
            put({ check_valve });
          }}
        />
      )}
      <YesNo
        label="Drip loop in the cable"
        value={layout.drip_loop}
        onChange={(drip_loop) => {
          put({ drip_loop });
        }}
      />
      {back && (
        <YesNo
          label="Siphon break in the return"
          value={layout.siphon_break}
          onChange={(siphon_break) => {
            put({ siphon_break });
          }}
        />
      )}
    </>
  );
}

function depthWords(depthCm: number | null | undefined): string {
  return depthCm == null ? "as usual" : show(depthCm, "cm");
}
