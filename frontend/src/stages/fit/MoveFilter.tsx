/** Replacing a filter or moving the tank while the film survives. */
import { range } from "../../api/range";
import { useState } from "react";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import type { FormDefaults } from "../../api/schemas";
import { Caution, Fields, Figure, PickOne, ProblemNote, Select } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

interface SideBySideProps {
  q: FormDefaults["move"];
  put: (change: Partial<FormDefaults["move"]>) => void;
}

function SideBySide({ q, put }: SideBySideProps) {
  return (
    <>
      <NumberBox
        label="Days side by side"
        value={q.days_side_by_side}
        {...range("FilterMoveQuestion.days_side_by_side")}
        onChange={(v) => {
          put({ days_side_by_side: v });
        }}
      />
      <NumberBox
        label="Media carried, %"
        value={Math.round(q.media_moved_share * 100)}
        {...range("FilterMoveQuestion.media_moved_share", 100)}
        onChange={(v) => {
          put({ media_moved_share: v / 100 });
        }}
      />
    </>
  );
}

/** known: from the logbook. Default: the usual way. */
export function MoveFilter({ known }: { known?: FormDefaults["move"] }) {
  const blank = useBlanks().move;
  const [q, setQ] = useState(known ?? blank);
  const put = (change: Partial<FormDefaults["move"]>) => {
    setQ((now) => ({ ...now, ...change }));
  };
  const answer = useCompute("filter-move", q);
  const a = answer.error ? undefined : answer.data;
  return (
    <>
      <PickOne
        label="What changes"
        value={q.what}
        onChange={(what) => {
          put({ what });
        }}
        options={[
          ["replace-filter", "the filter"],
          ["move-tank", "the tank's place"],
        ]}
      />
      <Fields>
        {q.what === "replace-filter" && <SideBySide q={q} put={put} />}
        <NumberBox
          label="Minutes out of the tank"
          value={q.minutes_out}
          {...range("FilterMoveQuestion.minutes_out")}
          onChange={(v) => {
            put({ minutes_out: v });
          }}
        />
        <Select
          label="The media travel"
          value={q.travels}
          onChange={(travels) => {
            put({ travels });
          }}
          options={[
            ["wet-open", "under water, open"],
            ["wet-closed", "under water, shut in"],
            ["damp", "damp in a bag"],
            ["dry", "dry"],
          ]}
        />
        <QuantityField
          label="On the way"
          unit="°C"
          value={q.temperature_c}
          {...range("FilterMoveQuestion.temperature_c")}
          onChange={(v) => {
            put({ temperature_c: v });
          }}
        />
      </Fields>
      <ProblemNote problem={answer.error} />
      {a && (
        <>
          <p role="status">
            <Figure title="Film carried across" lines={a.working}>
              {a.verdict}
            </Figure>
          </p>
          {a.warnings.map((t) => (
            <Caution key={t}>{t}</Caution>
          ))}
          <ol style={{ listStyle: "decimal", paddingLeft: 22 }}>
            {a.steps.map((s) => (
              <li key={s.id}>
                <b>{s.title}.</b> {s.detail}
              </li>
            ))}
          </ol>
        </>
      )}
    </>
  );
}
