/** Invitation: whose it is, and accepting it. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { ask, client, ProblemError } from "../api/client";
import { Button, Lead, ProblemNote, Verdict } from "../kit";
import { Page } from "../shared/Page";

const MAY = {
  helper: "You log what was done in their tanks; each entry says that it was you.",
  keeper: "You log and plan in their tanks as they do; taking tanks away stays with them.",
  reader: "You see their tanks and change nothing.",
} as const;

export default function Join() {
  const token = useParams().token ?? "";
  const params = { params: { path: { token } } };
  const invite = useQuery({
    queryKey: ["invite", token],
    queryFn: () => ask(client.GET("/api/invites/{token}", params)),
    retry: false,
  });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const accept = async () => {
    try {
      await ask(client.POST("/api/invites/{token}", params));
      await queries.invalidateQueries();
      await navigate("/today");
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const refused = invite.error instanceof ProblemError ? invite.error : null;
  return (
    <Page>
      <title>An invitation · Reedmace</title>
      {invite.data && (
        <>
          <Verdict>{invite.data.email} asks you to help with their tanks.</Verdict>
          <Lead>{MAY[invite.data.role]} You can leave again in Account.</Lead>
          <Button onPress={() => void accept()}>Come in</Button>
        </>
      )}
      {refused && <Verdict>This invitation opens nothing.</Verdict>}
      <ProblemNote problem={problem ?? refused} />
    </Page>
  );
}
