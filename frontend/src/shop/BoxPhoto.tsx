/** The photograph of a box on the shelf: put, replaced, taken away. */
import { FileTrigger } from "react-aria-components";
import { boxPictureOf, useBoxPhoto } from "../api/shelf";
import { Bar, InlineButton, ProblemNote } from "../kit";

interface Props {
  id: number;
  name: string;
  /** Digest of the photograph it has. */
  photo?: string;
}

export function BoxPhoto({ id, name, photo }: Props) {
  const change = useBoxPhoto(id);
  return (
    <Bar role="group" aria-label="Photograph">
      {photo && <img src={boxPictureOf(id, photo, "small")} alt={`The box of ${name}`} height={120} />}
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        onSelect={(files) => {
          if (files?.[0]) change.mutate(files[0]);
        }}
      >
        <InlineButton isDisabled={change.isPending}>
          {photo ? "Another photograph" : "Add a photograph of the box"}
        </InlineButton>
      </FileTrigger>
      {photo && (
        <InlineButton
          isDisabled={change.isPending}
          onPress={() => {
            change.mutate(null);
          }}
        >
          Take the photograph away
        </InlineButton>
      )}
      <ProblemNote problem={change.error} />
    </Bar>
  );
}
