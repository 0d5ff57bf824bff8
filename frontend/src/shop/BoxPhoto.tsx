/** The photograph of a box on the shelf: put, replaced, taken away; kept on this device while there is no connection. */
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { dropBoxPhoto, holdBoxPhoto, useHeldPhotos } from "../api/photos";
import { boxPictureOf, useRemoveBoxPhoto } from "../api/shelf";
import { Bar, InlineButton, ProblemNote } from "../kit";
import { WaitingPhoto } from "../shared/WaitingPhoto";

interface Props {
  id: number;
  name: string;
  /** Digest of the photograph it has. */
  photo?: string;
}

export function BoxPhoto({ id, name, photo }: Props) {
  const remove = useRemoveBoxPhoto(id);
  const waiting = useHeldPhotos().find((one) => one.boxId === id);
  const [full, setFull] = useState(false);
  return (
    <Bar role="group" aria-label="Photograph">
      {waiting ? (
        <WaitingPhoto photo={waiting} />
      ) : (
        photo && <img src={boxPictureOf(id, photo, "small")} alt={`The box of ${name}`} height={120} />
      )}
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        onSelect={(files) => {
          const file = files?.[0];
          if (file)
            void holdBoxPhoto(id, file).then((kept) => {
              setFull(!kept);
            });
        }}
      >
        <InlineButton>{photo || waiting ? "Another photograph" : "Add a photograph of the box"}</InlineButton>
      </FileTrigger>
      {(photo ?? waiting) && (
        <InlineButton
          isDisabled={remove.isPending}
          onPress={() => {
            void dropBoxPhoto(id);
            if (photo) remove.mutate();
          }}
        >
          Take the photograph away
        </InlineButton>
      )}
      {full && <span role="alert">Over 20 MB wait on this device already; let them be sent first.</span>}
      <ProblemNote problem={remove.error} />
    </Bar>
  );
}
