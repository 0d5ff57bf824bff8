/** Flow tests: a bucket where the outlet can be caught, otherwise a float or the level in the box. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { compute, ProblemError } from "../../api/client";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import { useWrite } from "../../api/entries";
import { useJug, usePracticeTank, type Jugful } from "../../api/practice";
import type { FittedView } from "../../api/schemas";
import { Button, Fields, Figure, PickOne, ProblemNote } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { Bar } from "../../kit";
import { Stopwatch } from "./Stopwatch";
import { ThrottleFinder } from "./ThrottleFinder";
import { show } from "../../quantity/format";
import { KEPT_HERE } from "../../shared/keptHere";

type Way = "bucket" | "transit" | "level-drop";
const isWay = (text: string): text is Way => ["bucket", "transit", "level-drop"].includes(text);

export function FlowTests({ tankId, one }: { tankId: number; one: FittedView }) {
  const ways = one.proofs.flatMap((p): [Way, string][] => (isWay(p.method) ? [[p.method, p.words]] : []));
  const practice = usePracticeTank() !== null;
  const [way, setWay] = useState<Way>(practice ? "bucket" : (ways[0]?.[0] ?? "bucket"));
  const computed = one.installed.flow.delivered_lph;
  return (
    <Box>
      <h2>Prove the flow: three times, by hand and clock</h2>
      {!practice && <PickOne label="The outlet" value={way} onChange={setWay} options={ways} />}
      {way === "bucket" ? (
        <BucketTest tankId={tankId} one={one} />
      ) : (
        <OtherTest
          key={way}
          tankId={tankId}
          filterKey={one.installed.key}
          way={way}
          computed={computed >= 1 ? computed : undefined}
        />
      )}
      <ThrottleFinder />
      {one.calibration != null && (
        <p>
          Your last test stands at {(one.calibration * 100).toFixed(0)} % of the sums: expect about{" "}
          {show(one.calibration * computed, "L/h")} here.
        </p>
      )}
    </Box>
  );
}

interface TimesProps {
  times: (number | null)[];
  onChange: (times: (number | null)[]) => void;
  /** Without a stopwatch where the clock is not the keeper's own. */
  stopwatch?: boolean;
}

function Times({ times, onChange, stopwatch = true }: TimesProps) {
  const put = (at: number, seconds: number | null) => {
    onChange(times.map((x, j) => (j === at ? seconds : x)));
  };
  const next = times.indexOf(null);
  return (
    <>
      {times.map((t, i) => (
        <NumberBox
          key={i}
          label={`Fill ${i + 1}, s`}
          value={t}
          {...range("BucketTestQuestion.times_s")}
          onChange={(v) => {
            put(i, v);
          }}
          onClear={() => {
            put(i, null);
          }}
        />
      ))}
      {stopwatch && next >= 0 && (
        <Stopwatch
          key={next}
          fill={next + 1}
          onTime={(seconds) => {
            put(next, seconds);
          }}
        />
      )}
    </>
  );
}

const CONTAINER = { label: "Container", unit: "L", ...range("BucketTestQuestion.container_l") } as const;

function BucketTest({ tankId, one }: { tankId: number; one: FittedView }) {
  const [litres, setLitres] = useState(useBlanks().jug_l);
  const [times, setTimes] = useState<(number | null)[]>([null, null, null]);
  const write = useWrite(tankId);
  const practice = usePracticeTank() !== null;
  const filled = times.filter((t): t is number => t !== null);
  const question = filled.length
    ? {
        container_l: litres,
        times_s: filled,
        computed_lph: one.installed.flow.delivered_lph,
        causes: one.causes,
      }
    : null;
  const answer = useCompute("bucket-test", question);
  const shown = question ? (answer.error ? undefined : answer.data) : one.last_test;
  return (
    <>
      <Fields $min={104}>
        <QuantityField {...CONTAINER} value={litres} onChange={setLitres} />
        <Times times={times} onChange={setTimes} stopwatch={!practice} />
      </Fields>
      {practice && (
        <Jug
          tankId={tankId}
          filterKey={one.installed.key}
          onFilled={(held) => {
            setLitres(held.container_l);
            setTimes(times.map((_, n) => held.times_s[n] ?? null));
          }}
        />
      )}
      <ProblemNote problem={answer.error ?? write.error} />
      {shown && (
        <p role="status">
          {!question && "Last test: "}
          <Figure title="Flow test" lines={shown.working}>
            {shown.verdict}
          </Figure>
        </p>
      )}
      {shown && <Causes causes={shown.likely_causes} />}
      <Bar>
        <Button
          isDisabled={!question || write.isPending}
          onPress={() => {
            if (!question) return;
            const { container_l, times_s, computed_lph } = question;
            write.mutate(
              {
                body: {
                  kind: "flow-test",
                  filter_key: one.installed.key,
                  container_l,
                  times_s,
                  computed_lph,
                },
              },
              {
                onSuccess: () => {
                  setTimes([null, null, null]);
                },
              },
            );
          }}
        >
          Log the flow test
        </Button>
        {write.data === "held" ? (
          <span role="status">{KEPT_HERE}</span>
        ) : (
          <span>Repeat monthly: it is the only window into a closed filter.</span>
        )}
      </Bar>
    </>
  );
}

function Causes({ causes }: { causes: string[] }) {
  if (causes.length === 0) return null;
  return (
    <ol>
      {causes.map((cause) => (
        <li key={cause}>{cause}</li>
      ))}
    </ol>
  );
}

/** On a practice tank: a jug held under the true outlet. */
function Jug(props: { tankId: number; filterKey: string; onFilled: (held: Jugful) => void }) {
  const jug = useJug(props.tankId, props.filterKey);
  const hold = () => {
    jug.mutate(undefined, {
      onSuccess: (held) => {
        if (held) props.onFilled(held);
      },
    });
  };
  return (
    <>
      <Bar>
        <Button isDisabled={jug.isPending} onPress={hold}>
          Hold a jug under the outlet
        </Button>
        <span role="status">{jug.data?.times_s.length === 0 && "No water comes."}</span>
      </Bar>
      <ProblemNote problem={jug.error} />
    </>
  );
}

const ASKS = {
  transit: {
    how: "Let a bubble or a crumb of food run a marked way through a clear piece of hose, and time it.",
    cmLabel: "Way",
    cm: 50,
    sizeLabel: "Bore",
    sizeUnit: "mm",
    size: 16,
  },
  "level-drop": {
    how: "Take the media out, hold the spill shut with a hand-wide strip of foam, and time how long the box takes to rise to a mark. Take it off again at once.",
    cmLabel: "Rise",
    cm: 4,
    sizeLabel: "Inside of the box, cm²",
    sizeUnit: null,
    size: 120,
  },
} as const satisfies Record<Exclude<Way, "bucket">, object>;

/** The bore of the hose, or the inside of the box. */
function Size(props: {
  of: (typeof ASKS)[keyof typeof ASKS];
  value: number;
  onChange: (size: number) => void;
}) {
  const { of: ask, value, onChange } = props;
  return ask.sizeUnit ? (
    <QuantityField
      label={ask.sizeLabel}
      unit={ask.sizeUnit}
      value={value}
      {...range("FlowTransitQuestion.bore_mm")}
      onChange={onChange}
    />
  ) : (
    <NumberBox
      label={ask.sizeLabel}
      value={value}
      {...range("LevelDropQuestion.area_cm2")}
      onChange={onChange}
    />
  );
}

function OtherTest({
  tankId,
  filterKey,
  way,
  computed,
}: {
  tankId: number;
  filterKey: string;
  way: "transit" | "level-drop";
  computed?: number;
}) {
  const [times, setTimes] = useState<(number | null)[]>([null, null, null]);
  const ask = ASKS[way];
  const [cm, setCm] = useState<number>(ask.cm);
  const [size, setSize] = useState<number>(ask.size);
  const filled = times.filter((t): t is number => t !== null);
  const through = { way_cm: cm, times_s: filled, bore_mm: size };
  const fall = { area_cm2: size, rise_cm: cm, times_s: filled };
  const transit = useCompute("flow-transit", way === "transit" && filled.length ? through : null);
  const level = useCompute("level-drop", way === "level-drop" && filled.length ? fall : null);
  const asked = way === "transit" ? transit : level;
  const answer = filled.length && !asked.error ? asked.data : undefined;
  const write = useWrite(tankId);
  // The answer on screen may be outdated: what is written is what is typed.
  const log = async () => {
    try {
      const found = await (way === "transit"
        ? compute("flow-transit", through)
        : compute("level-drop", fall));
      write.mutate({
        body: {
          kind: "timed-flow",
          filter_key: filterKey,
          method: way,
          measured_lph: found.measured_lph,
          plus_minus_lph: found.plus_minus_lph,
          computed_lph: computed,
        },
      });
    } catch (error) {
      // The same faults are shown above, by the same question.
      if (!(error instanceof ProblemError)) throw error;
    }
  };
  return (
    <>
      <p>{ask.how}</p>
      <Fields $min={104}>
        <QuantityField
          label={ask.cmLabel}
          unit="cm"
          value={cm}
          {...range("FlowTransitQuestion.way_cm")}
          onChange={setCm}
        />
        <Size of={ask} value={size} onChange={setSize} />
        <Times times={times} onChange={setTimes} />
      </Fields>
      <ProblemNote problem={asked.error ?? write.error} />
      {answer && (
        <p role="status">
          <Figure title="Flow test" lines={answer.working}>
            {answer.verdict}
          </Figure>
        </p>
      )}
      <Bar>
        <Button isDisabled={!answer || write.isPending} onPress={() => void log()}>
          Log the flow test
        </Button>
        {write.isSuccess && <span role="status">Written in the logbook.</span>}
      </Bar>
    </>
  );
}

const Box = styled.section`
  background: var(--silt);
  padding: 12px 14px;
  display: grid;
  gap: 10px;
  ol {
    list-style: decimal inside;
    font-size: 0.9375rem;
  }
`;
