/** A shelf that somebody shows by a link: to look at, and to take over. */
import { Link, useParams } from "react-router";
import type { ShelfItem } from "../api/schemas";
import { useSession } from "../api/session";
import { usePutBoxes, useShownShelf } from "../api/shelf";
import { useTables } from "../api/tables";
import { Bar, Button, Lead, ProblemNote, Verdict } from "../kit";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { BoxTable } from "./BoxTable";

export default function ShownShelf() {
  const token = useParams().token ?? "";
  const shelf = useShownShelf(token);
  const tables = useTables();
  const items = shelf.data?.items ?? [];
  return (
    <Page>
      <title>A shelf · Reedmace</title>
      <Opening asked={[shelf]}>Opening the shelf…</Opening>
      {shelf.data && tables.data && (
        <>
          <Verdict>
            {items.length === 1 ? "One box" : `${items.length} boxes`} on a shelf shown to you.
          </Verdict>
          <Lead>
            Whether one does for your tank: <Link to="/counter">the counter</Link> says yes or no.
          </Lead>
          {items.length > 0 && <TakeOver items={items} />}
          <BoxTable items={items} />
        </>
      )}
    </Page>
  );
}

/** Onto one's own shelf with them, for whoever is signed in. */
function TakeOver({ items }: { items: ShelfItem[] }) {
  const session = useSession();
  const put = usePutBoxes();
  if (!session.data?.signed_in) return null;
  return (
    <Bar>
      <Button
        isDisabled={put.isPending || put.isSuccess}
        onPress={() => {
          put.mutate(items.map((one) => one.box));
        }}
      >
        Put these on my shelf
      </Button>
      <span role="status">{put.isSuccess ? "They are on your shelf." : ""}</span>
      <ProblemNote problem={put.error} />
    </Bar>
  );
}
