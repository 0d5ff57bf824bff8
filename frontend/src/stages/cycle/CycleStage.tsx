/** Cycle stage: today's actions and why, the chart, the forecast, and the tabs behind them. */
import { useState } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useCycle } from "../../api/tanks";
import { useView } from "../../api/compute";
import type { CycleLog as Log, CycleState, Entry, Tables } from "../../api/schemas";
import { CycleLog } from "../../charts/CycleLog";
import { Figure, Fold, Lead, Tabs, Verdict, type Leaf } from "../../kit";
import { Section } from "../../section/Section";
import { kitPpm, ppmWords } from "../../quantity/ppm";
import { Bar } from "../../kit";
import { hanging } from "../../shared/installedFilters";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { StagePart } from "../../shared/StagePart";
import { type StageProps } from "../../shared/stageProps";
import { TakeoverNote } from "../../shared/TakeoverNote";
import { NewEntry } from "../../shared/NewEntry";
import { FirstAction, Foreseen, Then, Why } from "../../shared/CycleActions";
import { SeenUnwell, Unwell } from "../../shared/Illness";
import { Cloudy } from "./Cloudy";
import { CyclePlanForm } from "./CyclePlanForm";
import { cycleStart, dater } from "../../shared/cycleDates";
import { Files } from "./Files";
import { FirstAnimals } from "./FirstAnimals";
import { LogTest } from "./LogTest";
import { Ready } from "./Ready";
import { TryInPractice } from "../../shared/TryInPractice";
import { TestsBook } from "./TestsBook";
import { Unadvised, useSilentCoach } from "./Unadvised";
import { VialReader } from "./VialReader";
import { KhDrops } from "./KhDrops";
import { WaterSpecies } from "./WaterSpecies";
import { WhatIf } from "./WhatIf";
import { useNarrow } from "../../kit/usePhone";
import { WATER_PARAMETERS } from "../../api/waterParameters";
import { parameterWords } from "../../quantity/waterParameters";
import { LOCALE } from "../../quantity/locale";
import { Opening } from "../../shared/NotFetched";

export default function CycleStage(props: StageProps) {
  const { part } = useParams();
  if (part === "vial")
    return (
      <StagePart back={`/tanks/${props.tankId}/cycle`} stage="Cycle" title="Read a vial by a picture">
        <VialReader tankId={props.tankId} kit={props.logbook.plans.kit.kit} />
      </StagePart>
    );
  if (part === "water")
    return (
      <StagePart back={`/tanks/${props.tankId}/cycle`} stage="Cycle" title="The water, species by species">
        <WaterSpecies tankId={props.tankId} />
        <KhDrops />
      </StagePart>
    );
  return part === "files" ? (
    <StagePart
      back={`/tanks/${props.tankId}/cycle`}
      stage="Cycle"
      title="Files in and out, your kit, devices"
    >
      <Files {...props} />
    </StagePart>
  ) : (
    <Now {...props} />
  );
}

/** What is to be done today, and why. */
function Now(props: StageProps) {
  const { tankId, logbook } = props;
  const netL = useView(tankId, "tank", {}).data?.volume.net_l;
  const cycle = useCycle(tankId);
  const state = cycle.data;
  const begun = state && hasBegun(state);
  const silent = useSilentCoach(state);
  const narrow = useNarrow();
  return (
    <TwoColumns
      drawing={
        <Together data-stays>
          <CycleDrawing {...props} state={state} />
          {!narrow && <LogTest tankId={tankId} logbook={logbook} />}
        </Together>
      }
      beside={begun && !silent && <Why state={state} />}
    >
      <Opening asked={[cycle]}>Running the forecast…</Opening>
      {begun && <Under {...props} state={state} netL={netL} silent={silent} />}
      {state && !begun && <ToBegin tankId={tankId} logbook={logbook} />}
    </TwoColumns>
  );
}

/** Whether the tank came in with its cycle begun, so that tests made before are what comes first. */
function saidToCycle({ situation }: StageProps["logbook"]): boolean {
  return situation?.body.kind === "situation" && situation.body.stands === "cycling";
}

function beginWords(logbook: StageProps["logbook"]): string {
  return saidToCycle(logbook)
    ? "How is it being cycled? Then the tests made so far, each with its day, say how far it is."
    : "Nothing lives in the filter yet. Begin its cycle, and the tests will say when animals may come.";
}

function hasBegun(state: CycleState): boolean {
  return state.log != null && state.advice != null && state.readiness != null;
}

function CycleDrawing({ tankId, logbook, tables, state }: StageProps & { state?: CycleState }) {
  const volume = useView(tankId, "tank", {}).data?.volume;
  const latest = logbook.readings.findLast(
    (e) => e.body.kind === "reading" && (e.body.ammonia_ppm != null || e.body.nitrite_ppm != null),
  );
  const film = state && hasBegun(state) && !state.stocked ? filmWords(state, tables) : null;
  return (
    <Section
      plan={logbook.plans.tank}
      volume={volume}
      filters={hanging(logbook.plans.filter)}
      water={waterWords(latest ?? logbook.readings.at(-1))}
      labels={film ? [{ at: "body", lines: [film.label] }] : undefined}
      caption={`What the water carries: ${waterWords(latest).join(", ") || "not tested yet"}. ${film?.sentence ?? ""}`}
    />
  );
}

function filmWords(state: CycleState, tables: Tables): { label: string; sentence: string } {
  const proven = state.readiness?.proven_mg_n_l_day ?? 0;
  if (proven <= 0)
    return { label: "not proven yet", sentence: "The film has not cleared a dose in a day yet." };
  const clears = ppmWords(proven, "ammonia", kitPpm(tables, state.log?.kit ?? undefined));
  return { label: `clears ${clears} a day`, sentence: `The film has cleared ${clears} in a day.` };
}

/** A cycle not planned yet: the plan, and tests made before it. */
function ToBegin({ tankId, logbook }: Pick<StageProps, "tankId" | "logbook">) {
  const narrow = useNarrow();
  const said = saidToCycle(logbook);
  return (
    <>
      <Verdict>{beginWords(logbook)}</Verdict>
      {narrow && said && <LogTest tankId={tankId} logbook={logbook} />}
      <DrawingHere />
      <CyclePlanForm tankId={tankId} logbook={logbook} />
      <Fold summary="Tests made before, from paper or a file; your kit; devices" open={said}>
        <TestsBook tankId={tankId} logbook={logbook} />
        <Files tankId={tankId} logbook={logbook} />
      </Fold>
    </>
  );
}

/** A cycle under way, with its advice or while the coach of a practice tank is silent. */
function Under({ silent, ...props }: BegunProps & { silent: boolean }) {
  return silent ? <Unadvised {...props} /> : <Begun {...props} />;
}

/** Line from which the form of signs opens. */
const WHAT_IS_SEEN = "What do you see? Gasping, spots, an animal that does not eat…";

interface BegunProps extends StageProps {
  state: CycleState;
  netL?: number;
}

function Begun({ tankId, logbook, tables, state, netL }: BegunProps) {
  const narrow = useNarrow();
  const [leaf, setLeaf] = useState(() => sessionStorage.getItem("reedmace.leaf") ?? "chart");
  const start = cycleStart(logbook);
  const dateOf = dater(start);
  const { advice, readiness, log } = state;
  if (!advice || !readiness || !log) return null;
  const choose = (next: string) => {
    setLeaf(next);
    sessionStorage.setItem("reedmace.leaf", next);
  };
  const leaves = leavesOf({ tankId, logbook, tables, state, netL }, log, dateOf);
  return (
    <>
      <Verdict>{advice.verdict}</Verdict>
      <ToDo
        tankId={tankId}
        logbook={logbook}
        tables={tables}
        state={state}
        onAnimals={() => {
          choose("animals");
        }}
      />
      {narrow && <LogTest tankId={tankId} logbook={logbook} />}
      <DrawingHere />
      <Foreseen state={state} start={start} />
      {!state.animals_in && <Then state={state} />}
      {state.takeover && <TakeoverNote takeover={state.takeover} />}
      <When state={state} dateOf={dateOf} />
      <Tabs
        label="More of this cycle"
        leaves={leaves}
        chosen={leaves.some((l) => l.id === leaf) ? leaf : (leaves[0]?.id ?? "ready")}
        onChoose={choose}
      />
      <Bar>
        <Link to={`/tanks/${tankId}/diary`}>The cycle diary, to print</Link>
        <TryInPractice tankId={tankId} />
      </Bar>
    </>
  );
}

/** The first action, after an illness that cannot wait; with animals in the other actions and the form of signs too. */
function ToDo({ state, onAnimals, ...props }: BegunProps & { onAnimals: () => void }) {
  const { advice, log, illness } = state;
  if (!advice || !log) return null;
  return (
    <>
      {illness?.urgent && <Unwell tankId={props.tankId} illness={illness} />}
      <FirstAction
        action={advice.first}
        log={log}
        tankId={props.tankId}
        lines={advice.working}
        onAnimals={onAnimals}
      />
      {illness && !illness.urgent && <Unwell tankId={props.tankId} illness={illness} />}
      {state.animals_in && (
        <>
          <Then state={state} />
          <SeenUnwell {...props} asks={WHAT_IS_SEEN} />
        </>
      )}
    </>
  );
}

function leavesOf(
  { tankId, logbook, tables, state, netL }: BegunProps,
  log: Log,
  dateOf: (day: number) => string,
): Leaf[] {
  const { forecast, cloudy } = state;
  const shares = kitPpm(tables, log.kit);
  const ready = state.readiness?.ready ?? false;
  const ahead: Leaf[] =
    forecast && !state.settled
      ? [
          {
            id: "chart",
            title: "Forecast",
            content: () => (
              <CycleLog log={log} forecast={forecast} share={shares} passed={ready} dateOf={dateOf} />
            ),
          },
          {
            id: "what-if",
            title: "What if",
            content: () => <WhatIf log={log} forecast={forecast} dateOf={dateOf} />,
          },
        ]
      : [];
  return [
    ...ahead.filter((l) => l.id === "chart" || !ready),
    ...(state.settled ? [] : [{ id: "ready", title: "Ready?", content: () => <Ready state={state} /> }]),
    {
      id: "animals",
      title: animalsTitle(state),
      content: () => <FirstAnimals tankId={tankId} state={state} shares={shares} />,
    },
    {
      id: "tests",
      title: "Logbook",
      content: () => (
        <>
          <TestsBook tankId={tankId} logbook={logbook} />
          <NewEntry tankId={tankId} netL={netL} logbook={logbook} tables={tables} />
        </>
      ),
    },
    {
      id: "plan",
      title: "Plan",
      content: () => <CyclePlanForm tankId={tankId} logbook={logbook} />,
    },
    ...(cloudy ? [{ id: "cloudy", title: "Cloudy?", content: () => <Cloudy known={cloudy} /> }] : []),
    { id: "files", title: "Kit and files", content: () => <Files tankId={tankId} logbook={logbook} /> },
  ];
}

function animalsTitle(state: CycleState): string {
  if (state.animals_in) return "Animals are in";
  return state.stocked ? "Next animals" : "First animals";
}

/** When it will be ready; nothing where it is, or where animals have come. */
function When({ state, dateOf }: { state: CycleState; dateOf: (day: number) => string }) {
  const { forecast, forecast_left_alone: leftAlone } = state;
  if (!forecast || state.stocked || state.readiness?.ready) return null;
  const { pass_day_p10: low, pass_day_p90: high } = forecast;
  return (
    <Lead>
      <Figure title="The forecast" lines={forecast.working}>
        {forecast.verdict}
      </Figure>{" "}
      {low != null && high != null && `That is ${dateOf(low)} to ${dateOf(high)}. `}
      {leftAlone?.outcome === "no-date" &&
        forecast.outcome === "range" &&
        "Without bicarbonate: no date at all."}
    </Lead>
  );
}

function waterWords(latest: Entry | undefined): string[] {
  if (latest?.body.kind !== "reading") return [];
  const r = latest.body;
  const off = r.off_scale;
  const words: string[] = [];
  const figure = (name: string, value: number | null | undefined, what: "ammonia" | "nitrite" | "nitrate") =>
    value == null ? null : `${name} ${value}${off.includes(what) ? " or more" : ""}`;
  // Large figure: the higher of the two poisons.
  const pair = [figure("ammonia", r.ammonia_ppm, "ammonia"), figure("nitrite", r.nitrite_ppm, "nitrite")];
  if ((r.nitrite_ppm ?? -1) > (r.ammonia_ppm ?? -1)) pair.reverse();
  const large = pair.find(Boolean);
  if (large) words.push(large);
  const rest = [
    pair[0] ? pair[1] : null,
    figure("nitrate", r.nitrate_ppm, "nitrate"),
    ...WATER_PARAMETERS.map((one) => (one.ion ? null : parameterWords(one, r[one.field]))),
  ];
  const second = rest.filter(Boolean).join(" · ");
  if (second) words.push(second);
  words.push(
    `read ${new Date(latest.at).toLocaleString(LOCALE, { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })}`,
  );
  return words;
}

/** The drawing and the test under it. */
const Together = styled.div`
  display: grid;
  gap: 10px;
`;
