/** Choosing a cycling method from the keeper's resources; and points keepers disagree on. */
import { range } from "../../api/range";
import { styled } from "styled-components";
import type { CycleStartView, FormDefaults, MethodChoice } from "../../api/schemas";
import { Button, Fields, Figure, Lead, Select, Term, Waiting, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { PlantsField } from "./PlantsField";

type Resources = FormDefaults["resources"];

interface Props {
  /** The methods, best first; none while they are computed. */
  methods?: NonNullable<CycleStartView["methods"]>;
  waiting: boolean;
  onChoose: (choice: MethodChoice) => void;
  resources: Resources;
  onResources: (resources: Resources) => void;
  animalsIn: boolean;
  onAnimalsIn: (now: boolean) => void;
}

/** Operating conditions on the bottle's label. */
const BOTTLE_WARMTH = [
  ["low_c", "Label: from"],
  ["high_c", "Label: to"],
] as const;
const BOTTLE_PH = [
  ["ph_low", "Label: from pH"],
  ["ph_high", "Label: to pH"],
] as const;

export function Chooser(props: Props) {
  const { methods, waiting, onChoose, resources, onResources, animalsIn, onAnimalsIn } = props;
  const set = (change: Partial<Resources>) => {
    onResources({ ...resources, ...change });
  };
  return (
    <section aria-label="Choose a method">
      <h2>
        What do you have for the <Term of="cycle">cycle</Term>?
      </h2>
      <ResourceFields resources={resources} set={set} />
      <Ticks>
        <YesNo
          label="Aquarium-grade ammonia"
          value={resources.ammonia}
          onChange={(ammonia) => {
            set({ ammonia });
          }}
        />
        <YesNo
          label="A test kit"
          value={resources.test_kit}
          onChange={(test_kit) => {
            set({ test_kit });
          }}
        />
        {resources.mature_media !== "none" && (
          <YesNo
            label="The old filter fits beside the new"
            value={resources.old_filter_fits}
            onChange={(old_filter_fits) => {
              set({ old_filter_fits });
            }}
          />
        )}
        <YesNo label="Animals are in already" value={animalsIn} onChange={onAnimalsIn} />
      </Ticks>
      {waiting && <Waiting>Running each way in your water…</Waiting>}
      {methods && <Methods answer={methods} onChoose={onChoose} />}
    </section>
  );
}

interface MethodsProps {
  answer: NonNullable<Props["methods"]>;
  onChoose: Props["onChoose"];
}

/** The ways to cycle, best first, and what keepers disagree about. */
function Methods({ answer, onChoose }: MethodsProps) {
  return (
    <>
      <Lead>
        <Figure title="Ways to cycle" lines={answer.working}>
          {answer.verdict}
        </Figure>
      </Lead>
      <Ways>
        {answer.methods.map((m) => (
          <Way key={m.method} way={m} onChoose={onChoose} />
        ))}
      </Ways>
      <details>
        <summary>Where keepers disagree about this</summary>
        <Disputes>
          {answer.disputes.map((d) => (
            <div key={d.about}>
              <dt>{d.about}</dt>
              <dd>
                {d.one_side} <i>Against it:</i> {d.other_side} <b>Here:</b> {d.followed}
              </dd>
            </div>
          ))}
        </Disputes>
      </details>
    </>
  );
}

function Way({ way: m, onChoose }: { way: MethodChoice; onChoose: Props["onChoose"] }) {
  return (
    <li data-fits={m.fits}>
      <div>
        <b>{m.title}</b>
        <p>
          {m.why} {m.fits !== "not-here" && m.watch}
        </p>
      </div>
      <p className="days">
        {m.days_low != null ? (
          <>
            <b>
              {m.days_low.toFixed(0)} to {m.days_high == null ? "over 150" : m.days_high.toFixed(0)} days
            </b>{" "}
            here
            <br />
          </>
        ) : null}
        <small>
          said: {m.said}
          {m.fits !== "not-here" && `; costs ${m.costs}`}
        </small>
      </p>
      {m.fits !== "not-here" ? (
        <Button
          $quiet
          aria-label={`Take it: ${m.title}`}
          onPress={() => {
            onChoose(m);
          }}
        >
          Take it
        </Button>
      ) : (
        <span />
      )}
    </li>
  );
}

interface ResourceProps {
  resources: Resources;
  set: (change: Partial<Resources>) => void;
}

function ResourceFields({ resources, set }: ResourceProps) {
  return (
    <Fields $min={150}>
      <Select
        label="Media from a running tank"
        value={resources.mature_media}
        onChange={(mature_media) => {
          set({ mature_media });
        }}
        options={[
          ["none", "none"],
          ["own", "from my own tank"],
          ["trusted", "from a tank I trust"],
          ["unsure", "from one I do not know"],
        ]}
      />
      {resources.mature_media !== "none" && (
        <NumberBox
          label="How much, % of a filter's"
          value={resources.media_share * 100}
          {...range("Resources.media_share", 100)}
          onChange={(v) => {
            set({ media_share: v / 100 });
          }}
        />
      )}
      <PlantsField
        value={resources.plants}
        onChange={(plants) => {
          set({ plants });
        }}
      />
      <Select
        label="Bottled culture"
        value={resources.bottle}
        onChange={(bottle) => {
          set({ bottle });
        }}
        options={[
          ["none", "none"],
          ["in-date", "in date"],
          ["expired", "past its date"],
        ]}
      />
      {resources.bottle !== "none" && (
        <BottleLabel
          label={resources.bottle_label}
          onLabel={(bottle_label) => {
            set({ bottle_label });
          }}
        />
      )}
      <Select
        label="Money for helpers"
        value={resources.budget}
        onChange={(budget) => {
          set({ budget });
        }}
        options={[
          ["some", "some"],
          ["little", "as little as can be"],
        ]}
      />
      <NumberBox
        label="Days you can wait"
        value={resources.days_to_spare}
        {...range("Resources.days_to_spare")}
        onChange={(days_to_spare) => {
          set({ days_to_spare });
        }}
      />
    </Fields>
  );
}

type Label = Resources["bottle_label"];

/** Temperature and pH range on the bottle's label. */
function BottleLabel({ label, onLabel }: { label: Label; onLabel: (label: Label) => void }) {
  return (
    <>
      {BOTTLE_WARMTH.map(([field, said]) => (
        <QuantityField
          key={field}
          label={said}
          unit="°C"
          value={label[field]}
          {...range(`BottleWindow.${field}`)}
          onChange={(v) => {
            onLabel({ ...label, [field]: v });
          }}
        />
      ))}
      {BOTTLE_PH.map(([field, said]) => (
        <NumberBox
          key={field}
          label={said}
          value={label[field]}
          {...range(`BottleWindow.${field}`)}
          onChange={(v) => {
            onLabel({ ...label, [field]: v });
          }}
        />
      ))}
    </>
  );
}

export type { Resources };

const Ticks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
`;
const Ways = styled.ul`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(120px, 170px) auto;
    gap: 14px;
    align-items: start;
    border-top: 1px solid var(--line);
    padding: 8px 0 8px 10px;
    border-left: 4px solid transparent;
  }
  li[data-fits="best"] {
    border-left-color: var(--reed);
    background: var(--silt);
  }
  li[data-fits="not-here"] {
    color: var(--ink-soft);
  }
  p {
    font-size: 0.9375rem;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.9062rem;
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr;
      gap: 4px;
    }
  }
`;
const Disputes = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 10px 24px;
  dt {
    font-weight: 600;
  }
  dd {
    font-size: 0.9375rem;
  }
`;
