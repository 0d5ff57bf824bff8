/** One press from a real tank to its practice twin, to try what one would not dare. */
import { useNavigate } from "react-router";
import { beginsAt, useBeginLesson, usePracticeTank } from "../api/practice";
import { InlineButton, ProblemNote } from "../kit";

export function TryInPractice({ tankId }: { tankId: number }) {
  const practice = usePracticeTank();
  const begin = useBeginLesson();
  const navigate = useNavigate();
  if (practice) return null;
  return (
    <div>
      <InlineButton
        isDisabled={begin.isPending}
        onPress={() => {
          begin.mutate(
            { lesson: "free", tank_id: tankId },
            { onSuccess: (made) => void navigate(beginsAt(made)) },
          );
        }}
      >
        Try it in practice, on a copy
      </InlineButton>
      <ProblemNote problem={begin.error} />
    </div>
  );
}
