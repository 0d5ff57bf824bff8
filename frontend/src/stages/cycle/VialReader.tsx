/** A vial read beside the kit's card in one picture: the white, the vial and each step are touched once. */
import { useRef, useState, type ChangeEvent } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { useCompute } from "../../api/compute";
import type { KitSteps, QuestionOf } from "../../api/schemas";
import { Bar, Button, InlineButton, Lead, PickOne, ProblemNote } from "../../kit";
import { draw, useCardTouches } from "./cardTouches";
import { VialPicture } from "./VialPicture";

type What = "ammonia" | "nitrite" | "nitrate";
const WHAT = [
  ["ammonia", "ammonia"],
  ["nitrite", "nitrite"],
  ["nitrate", "nitrate"],
] as const;
const LETTER: Record<What, string> = { ammonia: "a", nitrite: "n", nitrate: "no3" };

export function VialReader({ tankId, kit }: { tankId: number; kit: Required<KitSteps> }) {
  const [what, setWhat] = useState<What>("ammonia");
  const [shown, setShown] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const card = useCardTouches(what, kit[`${what}_ppm`]);
  const take = async (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = "";
    if (!file || !card.canvas.current) return;
    await draw(file, card.canvas.current);
    card.begin();
    setShown(true);
  };
  return (
    <>
      <Lead>
        Photograph the vial, or the pad of a strip, beside your kit’s card in daylight, then touch both: one
        light falls on both, so the lamp does not matter. Nothing is logged by itself, and the picture stays
        on this device.
      </Lead>
      <Bar>
        <PickOne
          label="What the vial tests"
          value={what}
          onChange={(value) => {
            setWhat(value);
            card.begin();
          }}
          options={WHAT}
        />
        <Button $quiet={shown} onPress={() => input.current?.click()}>
          {shown ? "Another picture" : "Take or choose a picture"}
        </Button>
        <input
          ref={input}
          type="file"
          accept="image/*"
          capture="environment"
          hidden
          aria-label="Picture of the vial"
          onChange={(e) => void take(e)}
        />
      </Bar>
      {shown && (
        <Bar role="status">
          <span>
            {card.next ? (
              <>
                Touch <strong>{card.next}</strong>, in its middle.
              </>
            ) : card.found ? (
              "The steps between were found where they lay last time."
            ) : (
              "All touched."
            )}
          </span>
          {card.touches.length > 0 && (
            <InlineButton onPress={card.takeBack}>Take the last touch back</InlineButton>
          )}
          {card.byLayout && (
            <InlineButton onPress={card.forgetCard}>Another card: touch every step</InlineButton>
          )}
        </Bar>
      )}
      <Read key={what} tankId={tankId} what={what} question={card.question} />
      <VialPicture
        canvas={card.canvas}
        shown={shown}
        touches={card.touches}
        next={card.next}
        onTouch={card.touch}
      />
    </>
  );
}

/** What it reads, and the way into the test. */
function Read({
  tankId,
  what,
  question,
}: {
  tankId: number;
  what: What;
  question: QuestionOf<"vial-reading"> | null;
}) {
  const navigate = useNavigate();
  const read = useCompute("vial-reading", question);
  if (!question) return null;
  if (read.error) return <ProblemNote problem={read.error} />;
  if (!read.data || read.isPlaceholderData) return <p role="status">Comparing…</p>;
  const { verdict, doubts, to_log: figure } = read.data;
  const put = () => {
    // The line of the test form, as if it had been typed: it is looked at once more before it is logged.
    const key = `reedmace.draft.${tankId}.line`;
    const others = (localStorage.getItem(key) ?? "")
      .split(/\s+(?=[a-z])/i)
      .filter((one) => one && one.split(/\s+/)[0] !== LETTER[what]);
    localStorage.setItem(key, [...others, `${LETTER[what]} ${figure}`].join(" "));
    localStorage.setItem("reedmace.logtest", "line");
    void navigate(`/tanks/${tankId}/cycle`);
  };
  return (
    <section aria-label="What it reads">
      <Said>{verdict}</Said>
      {doubts.slice(1).map((doubt) => (
        <p key={doubt}>{doubt}</p>
      ))}
      <Button $quiet={doubts.length > 0} onPress={put}>
        {doubts.length > 0 ? `Put ${figure} into the test all the same` : `Put ${figure} into the test`}
      </Button>
    </section>
  );
}

const Said = styled.p`
  font:
    600 1.375rem Vollkorn,
    serif;
  margin: 0 0 6px;
`;
