/** Cloudy water: tests first, mostly waiting. */
import { range } from "../../api/range";
import { useState } from "react";
import { useCompute } from "../../api/compute";
import type { CloudyQuestion as Question } from "../../api/schemas";
import { Fields, Figure, PickOne, ProblemNote, Select, YesNo } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { Columns } from "../../kit";

interface CloudFieldsProps {
  seen: Question;
  set: (change: Partial<Question>) => void;
}

/** The cloud as the keeper sees it. */
function CloudFields({ seen, set }: CloudFieldsProps) {
  return (
    <div>
      <PickOne
        label="The water is"
        value={seen.colour}
        onChange={(colour) => {
          set({ colour });
        }}
        options={[
          ["white", "milky"],
          ["grey-brown", "grey or brown"],
          ["green", "green"],
          ["tea", "clear but brown"],
        ]}
      />
      <Fields>
        <NumberBox
          label="Days since it was filled"
          value={seen.age_days}
          {...range("CloudyWaterQuestion.age_days")}
          onChange={(v) => {
            set({ age_days: v });
          }}
        />
        <NumberBox
          label="Days cloudy"
          value={seen.cloudy_days}
          {...range("CloudyWaterQuestion.cloudy_days")}
          onChange={(v) => {
            set({ cloudy_days: v });
          }}
        />
        <Select
          label="It came after"
          value={seen.after}
          onChange={(after) => {
            set({ after });
          }}
          options={[
            ["nothing", "nothing in particular"],
            ["filling", "filling"],
            ["new-gravel", "new gravel"],
            ["service", "cleaning the filter"],
            ["feeding", "feeding"],
            ["bicarbonate", "bicarbonate"],
            ["medicine", "medicine"],
            ["new-animals", "new animals"],
          ]}
        />
        <Select
          label="In a glass overnight"
          value={seen.settles_in_glass == null ? "unknown" : seen.settles_in_glass ? "settles" : "stays"}
          onChange={(v) => {
            set({ settles_in_glass: v === "unknown" ? null : v === "settles" });
          }}
          options={[
            ["unknown", "not tried"],
            ["settles", "it settles"],
            ["stays", "it stays milky"],
          ]}
        />
      </Fields>
      <YesNo
        label="Fine bubbles in it"
        value={seen.bubbles}
        onChange={(bubbles) => {
          set({ bubbles });
        }}
      />
      <YesNo
        label="Animals gasp at the surface"
        value={seen.gasping}
        onChange={(gasping) => {
          set({ gasping });
        }}
      />
    </div>
  );
}

/** known: what the logbook tells before the cloud is described. */
export function Cloudy({ known }: { known: Question }) {
  const [seen, setSeen] = useState(known);
  const set = (change: Partial<Question>) => {
    setSeen((now) => ({ ...now, ...change }));
  };
  const answer = useCompute("cloudy-water", {
    ...seen,
    ammonia_mg_n_l: known.ammonia_mg_n_l,
    nitrite_mg_n_l: known.nitrite_mg_n_l,
  });
  return (
    <Columns>
      <CloudFields seen={seen} set={set} />
      <div>
        <ProblemNote problem={answer.error} />
        {answer.data && (
          <>
            <h2>
              <Figure title="What it most likely is" lines={answer.data.working}>
                {answer.data.verdict}
              </Figure>
            </h2>
            <ol>
              {answer.data.steps.map((s, i) => (
                <li key={s.title}>
                  <b>
                    {i + 1}. {s.title}.
                  </b>{" "}
                  {s.detail}
                </li>
              ))}
            </ol>
            <ul>
              {answer.data.leave.map((l) => (
                <li key={l}>{l}</li>
              ))}
            </ul>
          </>
        )}
      </div>
    </Columns>
  );
}
