/** Tank stage: sizes, and the volume they hold. */
import { compute } from "../../api/client";
import { range } from "../../api/range";
import { useDraft } from "../../api/drafts";
import { opening, standing, useView } from "../../api/compute";
import type { TankPlan, TankView, TankVolume } from "../../api/schemas";
import { Caution, Fields, Figure, Lead, ProblemNote, Select, Verdict } from "../../kit";
import { QuantityField } from "../../kit/quantities";
import { Section } from "../../section/Section";
import { hanging } from "../../shared/installedFilters";
import { SaveBar } from "../../shared/SaveBar";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { type StageProps } from "../../shared/stageProps";
import { MoreFields, PlaceFields } from "./PlaceFields";
import { SizeFields } from "./SizeFields";
import { SumpForm } from "./SumpForm";
import { TankFacts } from "./TankFacts";
import { WhereItStands } from "./WhereItStands";
import { show, sizeOf, sizeWords, twinOf, unitName } from "../../quantity/format";

interface AssumedProps {
  plan: TankPlan;
  /** Whether any size or the litres are the keeper's own. */
  own: boolean;
}

function WhatIsAssumed({ plan, own }: AssumedProps) {
  if (plan.by_litres)
    return (
      <Lead>
        Only the litres are yours: the sizes are those of a usual box that holds them. Type your own, and the
        drawing, the hoses and the filters that fit follow.
      </Lead>
    );
  if (own) return null;
  return (
    <Lead>
      These sizes are an assumed tank of {show(60, "cm")}. Type its litres, or your sizes: “60 cm”, “24 in”,
      “2 ft”.
    </Lead>
  );
}

/** Litres, until sizes are measured. */
function Holds({ plan, own, onChange }: AssumedProps & { onChange: (litres: number) => void }) {
  if (own && !plan.by_litres) return null;
  return (
    <QuantityField
      label="It holds"
      unit="L"
      value={plan.by_litres ? (plan.tank.counted_l ?? null) : null}
      {...range("CounterQuestion.litres")}
      onChange={onChange}
    />
  );
}

const SIZES = ["length_cm", "width_cm", "height_cm", "shape"] as const;

const HEAVY =
  "Full tanks are heavy: the stand must be made for it, and whether the floor carries it is for a builder or the local code. Never move a filled tank.";

type Change<T> = (change: Partial<T>) => void;

/** What each handle of the drawing changes. */
function handles(setTank: Change<TankPlan["tank"]>, setAround: Change<TankPlan["surroundings"]>) {
  return {
    fill: (cm: number) => {
      setTank({ fill_below_rim_cm: cm });
    },
    wall: (cm: number) => {
      setAround({ behind_cm: cm });
    },
    stand: (cm: number) => {
      setAround({ stand_height_cm: cm });
    },
    canister: (cm: number) => {
      setAround({ canister_at_cm: cm });
    },
  };
}

export default function TankStage({ tankId, logbook }: StageProps) {
  const draft = useDraft<TankPlan>(tankId, "tank", logbook.plans.tank, logbook.tank_plan?.id ?? null);
  const { tank } = draft.value;
  const around = draft.value.surroundings;
  const asked = useView(tankId, "tank", { tank_plan: draft.value });
  const setTank = (change: Partial<TankPlan["tank"]>) => {
    // A typed size counts as measured: litres then follow from it, not from an earlier statement.
    const sized = SIZES.some((key) => key in change);
    draft.set((plan) => ({
      ...plan,
      by_litres: plan.by_litres && !sized,
      tank: { ...plan.tank, ...(sized && plan.by_litres ? { counted_l: null } : {}), ...change },
    }));
  };
  const setAround = (change: Partial<NonNullable<TankPlan["surroundings"]>>) => {
    draft.set((plan) => ({ ...plan, surroundings: { ...plan.surroundings, ...change } }));
  };
  const holds = (litres: number) => {
    void compute("usual-tank", { litres }).then(({ tank: usual }) => {
      draft.set((plan) => ({ ...plan, by_litres: true, tank: { ...plan.tank, ...usual } }));
    });
  };
  const view = standing(asked);
  const answer = view?.volume;
  const own = logbook.tank_plan != null || draft.dirty;
  return (
    <TwoColumns
      opening={opening(asked, "Measuring…")}
      drawing={
        <Section
          plan={draft.value}
          volume={answer}
          dimensions
          filters={hanging(logbook.plans.filter)}
          footMostCm={view?.foot_most_cm}
          onMove={handles(setTank, setAround)}
          caption={captionOf(draft.value, answer)}
        />
      }
      beside={<Caution>{HEAVY}</Caution>}
    >
      {answer && <Litres answer={answer} own={own} />}
      <DrawingHere />
      <ProblemNote problem={asked.error} />
      <WhatIsAssumed plan={draft.value} own={own} />
      {answer && <TankFacts answer={answer} overSump={around.sump != null} />}
      <Fields>
        <Holds plan={draft.value} own={own} onChange={holds} />
        <SizeFields tank={tank} setTank={setTank} onVolume={holds} />
        <PlaceFields around={around} setAround={setAround} />
        <Select
          label="Measured"
          value={tank.measured}
          onChange={(measured) => {
            setTank({ measured });
          }}
          options={[
            ["outside", "outside glass"],
            ["inside", "inside glass"],
          ]}
        />
      </Fields>
      <SumpPart around={around} view={view} setAround={setAround} />
      <MoreFields tank={tank} setTank={setTank} around={around} setAround={setAround} />
      <SaveBar
        tankId={tankId}
        draft={draft}
        blocked={asked.error?.status === 422}
        words="Save the tank"
        describe={(b) =>
          `${sizeWords(b.tank)}, water ${sizeOf(b.tank.fill_below_rim_cm)} ${unitName("cm")} below the rim`
        }
      />
      <WhereItStands tankId={tankId} said={logbook.situation ?? null} />
    </TwoColumns>
  );
}

function captionOf({ tank, surroundings }: TankPlan, answer?: TankVolume): string {
  const width = tank.shape === "box" ? ` by ${sizeOf(tank.width_cm)}` : "";
  return `The tank to scale, ${sizeOf(tank.length_cm)}${width} by ${sizeOf(tank.height_cm)} ${unitName("cm")}, ${sizeOf(surroundings.behind_cm)} ${unitName("cm")} from the wall. ${answer?.verdict ?? ""}`;
}

/** own: whether the sizes are the keeper's, typed or saved. */
function Litres({ answer, own }: { answer: TankVolume; own: boolean }) {
  return (
    <Verdict>
      {own ? "It holds " : "A tank like this holds "}
      <em>
        <Figure title="Net water" lines={answer.working} of="net_l">
          {show(answer.net_l, "L")}
        </Figure>
      </em>{" "}
      ({twinOf(answer.net_l, "L")}).
    </Verdict>
  );
}

interface SumpPartProps {
  around: TankPlan["surroundings"];
  view?: TankView;
  setAround: (change: Partial<TankPlan["surroundings"]>) => void;
}

function SumpPart({ around, view, setAround }: SumpPartProps) {
  if (!around.drilled && !around.overflow_box) return null;
  return (
    <SumpForm
      sump={around.sump ?? null}
      heldL={view?.sump_held_l}
      freeL={view?.sump_free_l}
      onChange={(sump) => {
        setAround({ sump });
      }}
    />
  );
}
