/** How a tank stands, for whoever has its link: no account, nothing to change. */
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { Lead, ProblemNote, Verdict, Waiting } from "../kit";
import { testInWords } from "../stages/keep/words";
import { Page } from "./Page";

export default function Look() {
  const token = useParams().token ?? "";
  const seen = useQuery({
    queryKey: ["look", token],
    queryFn: () => ask(client.GET("/api/look/{token}", { params: { path: { token } } })),
    retry: false,
  });
  const view = seen.data;
  return (
    <Page>
      <title>{`${view?.name ?? "A tank"} · Reedmace`}</title>
      {seen.isPending && <Waiting>Looking…</Waiting>}
      <ProblemNote problem={seen.error instanceof ProblemError ? seen.error : null} />
      {view && (
        <Stack>
          <Verdict>
            {view.name}: {view.urgent ? <em>{view.verdict}</em> : view.verdict}
          </Verdict>
          <Lead>{view.who}</Lead>
          <ul>
            {view.stages.map((s) => (
              <li key={s.stage}>
                <b>
                  {s.stage[0]?.toUpperCase()}
                  {s.stage.slice(1)}
                </b>{" "}
                {s.words}
              </li>
            ))}
          </ul>
          {view.due.length > 0 && (
            <section>
              <h2>Within a week</h2>
              <ul>
                {view.due.map((d) => (
                  <li key={d.key}>
                    <time dateTime={d.at}>{new Date(d.at).toLocaleDateString()}</time> {d.title}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {view.tests.length > 0 && (
            <section>
              <h2>Newest tests</h2>
              <ul>
                {view.tests.map((t) => (
                  <li key={t.at}>
                    <time dateTime={t.at}>{new Date(t.at).toLocaleDateString()}</time>{" "}
                    {testInWords(t.reading)}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </Stack>
      )}
    </Page>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
  max-width: 720px;
  time {
    display: inline-block;
    min-width: 96px;
    color: var(--ink-soft);
  }
  li {
    padding: 2px 0;
  }
`;
