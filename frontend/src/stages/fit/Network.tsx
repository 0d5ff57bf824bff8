/** The plumbing as an engineer reads it: heads along the way, and the network for other programs. */
import { standing, useCompute } from "../../api/compute";
import type { FittedView } from "../../api/schemas";
import { HeadLine } from "../../charts/HeadLine";
import { Bar } from "../../kit";

const STATES = { clean: "clean", serviced: "after a service", dirty: "when due for cleaning" };

export function Network({ tankId, one }: { tankId: number; one: FittedView }) {
  const heads = standing(useCompute("plumbing-heads", one.installed.flow.path ?? null));
  return (
    <>
      {heads && (
        <>
          <p>
            {heads.verdict} {heads.why}
          </p>
          <HeadLine heads={heads} />
        </>
      )}
      <Bar>
        {Object.entries(STATES).map(([state, words]) => (
          <a
            key={state}
            href={`/api/tanks/${tankId}/plumbing.inp?filter_key=${one.installed.key}&state=${state}`}
            download
          >
            EPANET .inp, {words}
          </a>
        ))}
      </Bar>
    </>
  );
}
