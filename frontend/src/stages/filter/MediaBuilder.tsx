/** The chosen filter's baskets, ordered along its water path by drag or keys. */
import { range } from "../../api/range";
import { Button as AriaButton, GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import { styled } from "styled-components";
import type { Basket, Filter, MediaStack } from "../../api/schemas";
import { Button, Caution, Figure, Select, YesNo } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { Bar, Facts } from "../../kit";
import { bare, fixed, show } from "../../quantity/format";

const MEDIA: readonly (readonly [Basket["media"], string])[] = [
  ["foam-10", "Coarse foam, 10 ppi"],
  ["foam-20", "Medium foam, 20 ppi"],
  ["foam-30", "Fine foam, 30 ppi"],
  ["floss", "Floss"],
  ["cartridge", "Cartridge"],
  ["ceramic-rings", "Ceramic rings"],
  ["sintered", "Sintered media"],
  ["plastic-balls", "Plastic balls"],
  ["lava", "Lava"],
  ["carbon", "Carbon"],
  ["zeolite", "Zeolite"],
];

interface Props {
  filter: Filter;
  baskets: Basket[];
  /** What a further basket would hold; undefined until the filter view has caught up. */
  next: Basket | undefined;
  /** Effect of the stack on this tank, from the stage's view. */
  answer: MediaStack | null;
  onChange: (baskets: Basket[]) => void;
}

export default function MediaBuilder({ filter, baskets, next, answer, onChange }: Props) {
  const change = (index: number, put: Partial<Basket>) => {
    onChange(baskets.map((b, i) => (i === index ? { ...b, ...put } : b)));
  };
  const { move, dragAndDropHooks } = useOrder(baskets, onChange);
  return (
    <>
      <p>{answer?.path_words}</p>
      <GridList
        aria-label="Media in the order the water meets them"
        dragAndDropHooks={dragAndDropHooks}
        renderEmptyState={() => "Nothing in it yet."}
      >
        {baskets.map((b, i) => (
          <Item key={i} id={i} textValue={MEDIA.find(([k]) => k === b.media)?.[1]}>
            <AriaButton slot="drag" aria-label={`Drag ${b.media}`}>
              ☰
            </AriaButton>
            <Select
              label="Medium"
              value={b.media}
              onChange={(media) => {
                change(i, { media });
              }}
              options={MEDIA}
            />
            <NumberBox
              label="Litres"
              value={b.litres}
              {...range("Basket.litres")}
              onChange={(litres) => {
                change(i, { litres });
              }}
            />
            <BasketTicks
              basket={b}
              onChange={(put) => {
                change(i, put);
              }}
            />
            <BasketButtons
              name={b.media}
              first={i === 0}
              last={i === baskets.length - 1}
              onMove={(by) => {
                move(i, i + by);
              }}
              onOut={() => {
                onChange(baskets.filter((_, j) => j !== i));
              }}
            />
          </Item>
        ))}
      </GridList>
      <Bar>
        <Button
          $quiet
          isDisabled={baskets.length >= 12}
          onPress={() => {
            if (next) onChange([...baskets, next]);
          }}
        >
          Add a medium
        </Button>
        <span>{show(filter.media_l, "L", 1)} of room.</span>
      </Bar>
      {answer && baskets.length > 0 && <StackFacts answer={answer} />}
    </>
  );
}

/** Moving a basket along the path, by drag or from one place to another. */
function useOrder(baskets: Basket[], onChange: Props["onChange"]) {
  const move = (from: number, to: number) => {
    if (to < 0 || to >= baskets.length) return;
    const moved = [...baskets];
    const [one] = moved.splice(from, 1);
    if (one) moved.splice(to, 0, one);
    onChange(moved);
  };
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: (e) => {
      const from = Number([...e.keys][0]);
      const onto = Number(e.target.key) + (e.target.dropPosition === "after" ? 1 : 0);
      move(from, from < onto ? onto - 1 : onto);
    },
  });
  return { move, dragAndDropHooks };
}

/** What the stack does in this tank. */
function StackFacts({ answer }: { answer: MediaStack }) {
  return (
    <>
      <p role="status">{answer.verdict}</p>
      {answer.faults.map((f) => (
        <Caution key={`${f.where}${f.what}`}>
          {f.what} <b>{f.remedy}</b>
        </Caution>
      ))}
      {answer.advice.map((a) => (
        <p key={a}>{a}</p>
      ))}
      <Facts>
        <Fact name="Fills" value={`${(answer.fill_share * 100).toFixed(0)} %`} lines={answer.working} />
        <Fact name="Weighs dry" value={show(answer.mass_kg, "kg", 1)} lines={answer.working} />
        <Fact name="Film area" value={`${fixed(answer.film_m2, 1)} m²`} lines={answer.working} />
        <Fact
          name="By the media-mass rule"
          value={`${bare(answer.has_kg, "kg", 1)} of ${show(answer.asked_kg, "kg", 1)}`}
          lines={answer.working}
        />
        {answer.clean_lph != null && (
          <Fact name="Clean flow" value={show(answer.clean_lph, "L/h")} lines={answer.working} />
        )}
        {answer.service_days != null && (
          <Fact name="Clean after" value={`${answer.service_days.toFixed(0)} days`} lines={answer.working} />
        )}
      </Facts>
    </>
  );
}

function BasketTicks({ basket, onChange }: { basket: Basket; onChange: (put: Partial<Basket>) => void }) {
  return (
    <div>
      <YesNo
        label="in its bag"
        value={basket.bagged}
        onChange={(bagged) => {
          onChange({ bagged });
        }}
      />
      <YesNo
        label="tray seated"
        value={basket.seated}
        onChange={(seated) => {
          onChange({ seated });
        }}
      />
    </div>
  );
}

interface BasketButtonsProps {
  name: string;
  first: boolean;
  last: boolean;
  onMove: (by: 1 | -1) => void;
  onOut: () => void;
}

/** Earlier, later, out. */
function BasketButtons({ name, first, last, onMove, onOut }: BasketButtonsProps) {
  return (
    <div>
      <Button
        $quiet
        aria-label={`Move ${name} earlier`}
        isDisabled={first}
        onPress={() => {
          onMove(-1);
        }}
      >
        ↑
      </Button>
      <Button
        $quiet
        aria-label={`Move ${name} later`}
        isDisabled={last}
        onPress={() => {
          onMove(1);
        }}
      >
        ↓
      </Button>
      <Button $quiet aria-label={`Take ${name} out`} onPress={onOut}>
        Out
      </Button>
    </div>
  );
}

function Fact({
  name,
  value,
  lines,
}: {
  name: string;
  value: string;
  lines: Parameters<typeof Figure>[0]["lines"];
}) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>
        <Figure title={name} lines={lines}>
          {value}
        </Figure>
      </dd>
    </div>
  );
}

const Item = styled(GridListItem)`
  > div {
    display: grid;
    grid-template-columns: auto minmax(150px, 1.4fr) 90px auto auto;
    gap: 6px 12px;
    align-items: end;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  button[slot="drag"] {
    min-height: 40px;
    min-width: 32px;
    border: 0;
    background: none;
    cursor: grab;
  }
  > div > div:last-child {
    display: flex;
    gap: 4px;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--seed);
  }
  @media (max-width: 45em) {
    > div {
      grid-template-columns: auto 1fr 80px;
    }
  }
`;
