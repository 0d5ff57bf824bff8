/** Photographs that belong to lines of the logbook: shown beside the line, and added to it. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link } from "react-router";
import { styled } from "styled-components";
import { holdPhoto, photosOptions, pictureOf } from "../../api/photos";
import type { Entry, Photo } from "../../api/schemas";
import { InlineButton } from "../../kit";

/** Photographs of a tank by the key of their line; those of no line under "". */
export function usePhotosByLine(tankId: number): Map<string, Photo[]> {
  const photos = useQuery(photosOptions(tankId)).data?.photos ?? [];
  const found = new Map<string, Photo[]>();
  for (const photo of photos) {
    const key = photo.entry_key ?? "";
    found.set(key, [...(found.get(key) ?? []), photo]);
  }
  return found;
}

export function LinePhotos({ tankId, photos }: { tankId: number; photos: readonly Photo[] }) {
  if (!photos.length) return null;
  return (
    <Row>
      {photos.map((photo) => (
        <Link key={photo.id} to={`/tanks/${tankId}/keep/photos`}>
          <img
            src={pictureOf(tankId, photo.id, "small")}
            alt={photo.words || "A photograph of it"}
            loading="lazy"
            width={96}
            height={72}
          />
        </Link>
      ))}
    </Row>
  );
}

/** Adds photographs to a line; offline they wait on this device. said: the line in words. */
export function AddToLine({ tankId, entry, said }: { tankId: number; entry: Entry; said: string }) {
  const [told, setTold] = useState("");
  const add = async (files: FileList | null) => {
    for (const file of files ?? []) {
      const of = entry.body.kind === "reading" ? "vial" : "tank";
      const kept = await holdPhoto({ tankId, at: entry.at, of, words: "", entryKey: entry.key, blob: file });
      setTold(kept ? "kept, and sent" : "no room on this device: let others be sent first");
    }
  };
  return (
    <FileTrigger acceptedFileTypes={["image/*"]} allowsMultiple onSelect={(files) => void add(files)}>
      <InlineButton aria-label={`Photograph for: ${said}`}>Photograph</InlineButton>
      <span role="status">{told}</span>
    </FileTrigger>
  );
}

const Row = styled.span`
  grid-column: 2 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  img {
    display: block;
    object-fit: cover;
  }
`;
