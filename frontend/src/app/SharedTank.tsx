/** State of a tank for anyone with its view link: no account, read-only. */
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import { useTables } from "../api/tables";
import type { SharedTankView } from "../api/schemas";
import { Capital, Lead, narrow, Verdict } from "../kit";
import { Section } from "../section/Section";
import { testInWords } from "../shared/entryWords";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { LOCALE } from "../quantity/locale";

export default function Look() {
  const token = useParams().token ?? "";
  const seen = useQuery({
    queryKey: ["look", token],
    queryFn: () => ask(client.GET("/api/look/{token}", { params: { path: { token } } })),
    retry: false,
  });
  const tables = useTables();
  const view = seen.data;
  return (
    <Page>
      <title>{`${view?.name ?? "A tank"} · Reedmace`}</title>
      <Opening asked={[seen]}>Looking…</Opening>
      {view && (
        <Columns>
          {tables.data && (
            <Section
              plan={view.tank}
              species={tables.data.species}
              animals={view.animals}
              filters={view.filters.map(({ key, filter }) => ({ key, filter }))}
              caption="The tank as it stands."
            />
          )}
          <Stack>
            <Verdict>
              {view.name}: {view.urgent ? <em>{view.verdict}</em> : view.verdict}
            </Verdict>
            <Lead>{view.who}</Lead>
            <ul>
              {view.stages.map((s) => (
                <li key={s.stage}>
                  <Capital>{s.stage}</Capital> {s.words}
                </li>
              ))}
            </ul>
            {view.due.length > 0 && (
              <section>
                <h2>Within a week</h2>
                <ul>
                  {view.due.map((d) => (
                    <li key={d.key}>
                      <time dateTime={d.at}>{new Date(d.at).toLocaleDateString(LOCALE)}</time> {d.title}
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
                      <time dateTime={t.at}>{new Date(t.at).toLocaleDateString(LOCALE)}</time>{" "}
                      {testInWords(t.reading)}
                    </li>
                  ))}
                </ul>
              </section>
            )}
            {view.photos.length > 0 && <Photographs photos={view.photos} token={token} />}
          </Stack>
        </Columns>
      )}
    </Page>
  );
}

function Photographs({ photos, token }: { photos: SharedTankView["photos"]; token: string }) {
  return (
    <section>
      <h2>Photographs</h2>
      {photos.map((photo) => (
        <figure key={photo.id}>
          <img
            src={`/api/look/${token}/photos/${photo.id}.jpg`}
            alt={photo.words || "The tank"}
            width={photo.width}
            height={photo.height}
            loading="lazy"
          />
          <figcaption>
            {new Date(photo.at).toLocaleDateString(LOCALE)} {photo.words}
          </figcaption>
        </figure>
      ))}
    </section>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
  max-width: 720px;
  time {
    color: var(--ink-soft);
  }
  li {
    padding: 2px 0;
  }
  figure {
    margin: 0 0 14px;
  }
  img {
    width: 100%;
    height: auto;
  }
  section li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
  }
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 560px) minmax(0, 1fr);
  gap: 40px;
  align-items: start;
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
    gap: 14px;
    > :first-child {
      order: 1;
    }
  }
`;
