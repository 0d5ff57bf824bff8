/** Labels of a room's tanks to print, each with a code that a phone's camera opens: a test is logged there. */
import { useParams } from "react-router";
import { styled } from "styled-components";
import { useLabels } from "../api/rooms";
import { Bar, Button, Caution, LineLink, Verdict } from "../kit";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

export default function LabelsPage() {
  const roomId = Number(useParams().roomId);
  const labels = useLabels(roomId);
  const sheet = labels.data;
  return (
    <Page name={sheet && `${sheet.room}, labels`}>
      <title>{`Labels · ${sheet?.room ?? "Room"} · Reedmace`}</title>
      <Stack>
        <Opening asked={[labels]}>Writing the labels…</Opening>
        {sheet && (
          <Head className="screen-only">
            <Verdict>
              {sheet.labels.length > 0
                ? "Print them, cut them out, stick each on its tank. A phone's camera on the code opens the tank where a test is logged."
                : "No tank stands in this room yet."}
            </Verdict>
            <Bar>
              <Button
                isDisabled={sheet.labels.length === 0}
                onPress={() => {
                  window.print();
                }}
              >
                Print
              </Button>
              <LineLink to={`/rooms/${roomId}`}>To the room</LineLink>
            </Bar>
            {sheet.own_machine && (
              <Caution>
                The codes hold this machine’s own address, which no phone can open. Open Reedmace by its
                address in your network first, and print from there.
              </Caution>
            )}
          </Head>
        )}
        <Labels>
          {sheet?.labels.map((label) => (
            <Label key={label.tank_id} aria-label={label.name}>
              <svg viewBox={`0 0 ${label.side} ${label.side}`} role="img" aria-label={label.address}>
                <path d={label.path} />
              </svg>
              <div>
                <h2>{label.name}</h2>
                <p>{label.words}</p>
              </div>
            </Label>
          ))}
        </Labels>
      </Stack>
    </Page>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 16px;
`;
const Head = styled.div`
  display: grid;
  gap: 12px;
`;
const Labels = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr));
  gap: 12px;
  @media print {
    grid-template-columns: 1fr 1fr;
    gap: 0;
  }
`;
/* A code is black on white, whatever the screen's colours. */
const Label = styled.article`
  display: grid;
  grid-template-columns: 116px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
  padding: 10px;
  border: 1px dashed var(--line);
  break-inside: avoid;
  svg {
    background: #fff;
    width: 116px;
    height: 116px;
  }
  path {
    fill: #000;
  }
  h2 {
    font-size: 1.3rem;
    overflow-wrap: anywhere;
  }
`;
