/** A photograph that is still on this device. */
import { useEffect, useMemo } from "react";
import { dropPhoto, type HeldPhoto } from "../api/photos";
import { Bar, InlineButton } from "../kit";

export function WaitingPhoto({ photo }: { photo: HeldPhoto }) {
  const url = useMemo(() => URL.createObjectURL(photo.blob), [photo.blob]);
  useEffect(
    () => () => {
      URL.revokeObjectURL(url);
    },
    [url],
  );
  return (
    <Bar role="status">
      <img src={url} alt="" width={80} height={60} style={{ objectFit: "cover" }} />
      <span>
        {photo.refused
          ? `Not taken: ${photo.refused}`
          : "Kept on this device; it is sent when the connection is back."}
      </span>
      {photo.refused && <InlineButton onPress={() => void dropPhoto(photo.key)}>Take it out</InlineButton>}
    </Bar>
  );
}
