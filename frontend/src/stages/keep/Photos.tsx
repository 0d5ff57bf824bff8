/** Photographs of a tank: added from a phone, a file or by pasting, in a strip by day, one of them large. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, type ChangeEvent } from "react";
import { styled } from "styled-components";
import { WaitingPhoto } from "../../shared/WaitingPhoto";
import { nowDate } from "../../api/clock";
import { ask, client, ProblemError } from "../../api/client";
import { holdPhoto, photosOptions, pictureOf, useHeldPhotos } from "../../api/photos";
import type { LogbookState, Photo } from "../../api/schemas";
import { Bar, Button, InlineButton, Lead, ProblemNote, Select, TextField, YesNo, narrow } from "../../kit";
import { whenOf } from "../../quantity/locale";
import { FetchProblem } from "../../shared/NotFetched";

const OF = [
  ["tank", "the tank"],
  ["cloud", "cloudy water"],
  ["animal", "an animal"],
  ["part", "a part"],
  ["box", "a box"],
  ["vial", "a vial"],
] as const;
const OF_WORDS = Object.fromEntries(OF) as Record<Photo["of"], string>;
const DAY_MS = 86_400_000;

export function Photos({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const photos = useQuery(photosOptions(tankId));
  const held = useHeldPhotos().filter((one) => one.tankId === tankId);
  const [chosen, setChosen] = useState<number | null>(null);
  const kept = photos.data?.photos ?? [];
  const shown = kept.find((one) => one.id === chosen) ?? kept.at(-1);
  const dayOf = useDays(logbook);
  return (
    <>
      <FetchProblem asked={photos} heads={false} />
      <Add tankId={tankId} />
      {held.map((one) => (
        <WaitingPhoto key={one.key} photo={one} />
      ))}
      {photos.data && !kept.length && !held.length && (
        <Lead>
          One from the same spot every week shows what a test cannot: clearness, algae, a fin that heals.
        </Lead>
      )}
      {shown && <Large tankId={tankId} photo={shown} day={dayOf(shown.at)} />}
      {kept.length > 1 && (
        <Strip aria-label="By day">
          {kept.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one.id === shown?.id}
                onClick={() => {
                  setChosen(one.id);
                }}
              >
                <img
                  src={pictureOf(tankId, one.id, "small")}
                  alt={altOf(one)}
                  loading="lazy"
                  width={120}
                  height={90}
                />
                {dayOf(one.at)}
              </button>
            </li>
          ))}
        </Strip>
      )}
    </>
  );
}

/** Names the day of a photograph: of the cycle where one was begun, else the date. */
function useDays(logbook: LogbookState): (at: string) => string {
  const start =
    logbook.cycle_plan?.body.kind === "cycle-plan" ? Date.parse(logbook.cycle_plan.body.started_at) : null;
  return (at) => {
    const days = start === null ? -1 : Math.floor((Date.parse(at) - start) / DAY_MS);
    return days >= 0 ? `day ${days}` : whenOf(at);
  };
}

function altOf(photo: Photo): string {
  return photo.words || `A photograph of ${OF_WORDS[photo.of]}`;
}

function Add({ tankId }: { tankId: number }) {
  const [of, setOf] = useState<Photo["of"]>("tank");
  const [words, setWords] = useState("");
  const [full, setFull] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const add = async (files: readonly File[]) => {
    for (const file of files) {
      // A file of a camera carries its time; a pasted one is of now.
      const at = new Date(Math.min(file.lastModified || Date.now(), nowDate().getTime())).toISOString();
      if (!(await holdPhoto({ tankId, at, of, words, blob: file }))) {
        setFull(true);
        return;
      }
    }
    setFull(false);
    setWords("");
  };
  const latest = useRef(add);
  useEffect(() => {
    latest.current = add;
  });
  useEffect(() => {
    const paste = (e: ClipboardEvent) => {
      const files = [...(e.clipboardData?.files ?? [])].filter((file) => file.type.startsWith("image/"));
      if (files.length) void latest.current(files);
    };
    window.addEventListener("paste", paste);
    return () => {
      window.removeEventListener("paste", paste);
    };
  }, []);
  return (
    <section aria-label="Add photographs">
      <Bar>
        <Select label="Of" value={of} onChange={setOf} options={OF} />
        <TextField
          label="What it shows"
          value={words}
          onChange={setWords}
          placeholder="the same spot, day 9"
        />
        <Button onPress={() => input.current?.click()}>Add photographs</Button>
        <input
          ref={input}
          type="file"
          accept="image/*"
          multiple
          hidden
          aria-label="Photographs"
          onChange={(e: ChangeEvent<HTMLInputElement>) => {
            void add([...(e.target.files ?? [])]);
            e.target.value = "";
          }}
        />
        <span>or paste one. Kept upright and small, without the place it was taken at.</span>
      </Bar>
      {full && (
        <p role="alert">
          Over 20 MB wait on this device already. Let them be sent first, or take some out; nothing of this
          was kept.
        </p>
      )}
    </section>
  );
}

function Large({ tankId, photo, day }: { tankId: number; photo: Photo; day: string }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [asking, setAsking] = useState(false);
  const path = { params: { path: { tank_id: tankId, photo_id: photo.id } } };
  const attempt = async (work: Promise<unknown>) => {
    setProblem(null);
    setAsking(false);
    try {
      await work;
      await queries.invalidateQueries({ queryKey: ["photos", tankId] });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <Figure>
      <img
        src={pictureOf(tankId, photo.id, "full")}
        alt={altOf(photo)}
        width={photo.width}
        height={photo.height}
      />
      <figcaption>
        <strong>{day}</strong>
        {photo.words && <span>{photo.words}</span>}
        <small>{whenOf(photo.at)}</small>
        <YesNo
          label="On the page shown to neighbours"
          value={photo.shown}
          onChange={(shown) =>
            void attempt(
              ask(client.PUT("/api/tanks/{tank_id}/photos/{photo_id}", { ...path, body: { shown } })),
            )
          }
        />
        {asking ? (
          <Bar>
            <Button
              onPress={() => void attempt(ask(client.DELETE("/api/tanks/{tank_id}/photos/{photo_id}", path)))}
            >
              Delete it for good
            </Button>
            <InlineButton
              onPress={() => {
                setAsking(false);
              }}
            >
              Keep it
            </InlineButton>
          </Bar>
        ) : (
          <InlineButton
            onPress={() => {
              setAsking(true);
            }}
          >
            Take it away
          </InlineButton>
        )}
        <ProblemNote problem={problem} />
      </figcaption>
    </Figure>
  );
}

const Figure = styled.figure`
  margin: 6px 0 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 16px;
  align-items: start;
  img {
    width: 100%;
    height: auto;
    max-height: 48vh;
    object-fit: contain;
    object-position: left top;
  }
  figcaption {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  small {
    color: var(--ink-soft);
  }
  ${narrow} {
    grid-template-columns: 1fr;
  }
`;
const Strip = styled.ul`
  list-style: none;
  display: flex;
  gap: 10px;
  overflow-x: auto;
  margin: 6px 0 0;
  padding: 0 0 8px;
  button {
    display: grid;
    gap: 2px;
    padding: 0 0 4px;
    border: 0;
    border-bottom: 3px solid transparent;
    background: none;
    color: var(--ink);
    font: inherit;
    font-size: 0.875rem;
    cursor: pointer;
  }
  button[aria-current="true"] {
    border-color: var(--seed);
  }
  img {
    width: 120px;
    height: 90px;
    object-fit: cover;
  }
`;
