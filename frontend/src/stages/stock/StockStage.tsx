/** Stock stage: the animals, their daily load, and the sizing rules. */
import { range } from "../../api/range";
import { useDraft, type Draft } from "../../api/drafts";
import { opening, standing, useView } from "../../api/compute";
import type { Animals, Species, StockPlan, StockView, WasteLoad } from "../../api/schemas";
import { SizingRules } from "../../charts/SizingRules";
import { Caution, Fields, Figure, Lead, ProblemNote, Verdict, Term } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { Section } from "../../section/Section";
import { AnimalList } from "./AnimalList";
import { OwnSpecies } from "./OwnSpecies";
import { Facts } from "../../kit";
import { SaveBar } from "../../shared/SaveBar";
import { SpeciesPicker } from "../../shared/SpeciesPicker";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { type StageProps } from "../../shared/stageProps";
import { bare, digits, fixed, show } from "../../quantity/format";

export default function StockStage({ tankId, logbook, tables }: StageProps) {
  const draft = useDraft<StockPlan>(tankId, "stock", logbook.plans.stock, logbook.stock_plan?.id ?? null);
  const plan = logbook.plans.tank;
  const asked = useView(tankId, "stock", { stock_plan: draft.value });
  const view = standing(asked);
  const animals = draft.value.animals;
  const any = animals.length > 0;
  const known = [...draft.value.own_species, ...tables.species];
  const load = view?.load;
  const setAnimals = (change: (now: StockPlan["animals"]) => StockPlan["animals"]) => {
    draft.set((stock) => ({ ...stock, animals: change(stock.animals) }));
  };
  const listed = (all: Animals[], none: string) => inWords(all, known) || none;
  return (
    <TwoColumns
      opening={opening(asked, "Looking at the animals…")}
      drawing={
        <Section
          plan={plan}
          volume={view?.volume}
          animals={animals}
          species={known}
          caption={`The animals at true length in the tank: ${listed(animals, "none yet")}.`}
        />
      }
      beside={any && load && <LoadFacts load={load} />}
    >
      {view && <Headline view={view} />}
      <DrawingHere />
      <ProblemNote problem={asked.error} />
      {!logbook.tank_plan && (
        <Lead>The tank has not been measured; an assumed tank of {show(60, "cm")} is used until it is.</Lead>
      )}
      <SpeciesPicker
        species={known}
        taken={animals.map((a) => a.species_id)}
        onPick={(species_id) => {
          const count = known.find((s) => s.id === species_id)?.together ?? 1;
          setAnimals((now) => [...now, { ...tables.form_defaults.animals, species_id, count }]);
        }}
      />
      <AnimalList animals={animals} known={known} load={load} onChange={setAnimals} />
      <FoodOrOwn draft={draft} blank={tables.form_defaults.animals} />
      {load && <Clashes load={load} />}
      <SaveBar
        tankId={tankId}
        draft={draft}
        words="Save the animals"
        describe={(b) => listed(b.animals, "no animals")}
      />
      {any && view && <Asked view={view} />}
    </TwoColumns>
  );
}

function inWords(animals: Animals[], known: Species[]): string {
  return animals
    .map((a) => `${a.count} ${known.find((s) => s.id === a.species_id)?.common_name ?? a.species_id}`)
    .join(", ");
}

function FoodOrOwn({ draft, blank }: { draft: Draft<StockPlan>; blank: Animals }) {
  return (
    <details>
      <summary>Food weighed, or an animal of your own</summary>
      <Fields>
        <NumberBox
          label="Dry food fed, g a day (0: by ration)"
          value={draft.value.feed_g_day ?? 0}
          {...range("StockPlan.feed_g_day")}
          onChange={(g) => {
            draft.set((stock) => ({ ...stock, feed_g_day: g > 0 ? g : null }));
          }}
        />
      </Fields>
      <OwnSpecies
        onAdd={(one) => {
          draft.set((stock) => ({
            ...stock,
            own_species: [...stock.own_species.filter((x) => x.id !== one.id), one],
            animals: [
              ...stock.animals.filter((x) => x.species_id !== one.id),
              { ...blank, species_id: one.id, count: 1 },
            ],
          }));
        }}
      />
    </details>
  );
}

function Headline({ view }: { view: StockView }) {
  const { load } = view;
  return (
    <>
      <Verdict $small={view.fits !== null}>{view.verdict}</Verdict>
      {view.fits !== null && (
        <Lead>
          Grown, they make{" "}
          <Figure title="Daily ammonia" lines={load.working} of="ammonia_mg_n_day">
            {load.ammonia_mg_n_day.toFixed(0)} mg of ammonia nitrogen
          </Figure>{" "}
          a day: the <Term of="load">load</Term> the filter’s <Term of="film">film</Term> must carry.
        </Lead>
      )}
    </>
  );
}

/** The first of them is the headline. */
function Clashes({ load }: { load: WasteLoad }) {
  return (
    <>
      {load.clashes.slice(1).map((c) => (
        <Caution key={c.text}>{c.text}</Caution>
      ))}
      {load.advice.map((text) => (
        <Lead key={text}>{text}</Lead>
      ))}
    </>
  );
}

function LoadFacts({ load }: { load: WasteLoad }) {
  const { temperature_low_c: low, temperature_high_c: high } = load;
  return (
    <Facts>
      <div>
        <dt>In each litre, a day</dt>
        <dd>
          <Figure title="Load per litre" lines={load.working} of="ammonia_mg_n_l_day">
            {digits(load.ammonia_mg_n_l_day, 2)} mg N
          </Figure>
        </dd>
      </div>
      <div>
        <dt>Food they eat</dt>
        <dd>
          <Figure title="Daily food" lines={load.working} of="feed_g_day">
            {fixed(load.feed_g_day, 1)} g/day
          </Figure>
        </dd>
      </div>
      <div>
        <dt>Grown, together</dt>
        <dd>
          <Figure title="Body mass" lines={load.working} of="mass_g">
            {load.mass_g.toFixed(0)} g
          </Figure>
        </dd>
      </div>
      {load.growing && (
        <div>
          <dt>At today’s sizes</dt>
          <dd>{load.today_mg_n_day.toFixed(0)} mg N</dd>
        </div>
      )}
      {load.doubling_differs && (
        <div>
          <dt>With keepers’ “double it”</dt>
          <dd>{load.doubled_mg_n_day.toFixed(0)} mg N</dd>
        </div>
      )}
      {low != null && high != null && low <= high && (
        <div>
          <dt>Suits them all</dt>
          <dd>
            {bare(low, "°C")} to {show(high, "°C")}
          </dd>
        </div>
      )}
    </Facts>
  );
}

function Asked({ view }: { view: StockView }) {
  const { requirement, volume } = view;
  return (
    <>
      <SizingRules requirement={requirement} netL={volume.net_l} />
      <Lead>{requirement.calm_words}</Lead>
    </>
  );
}
