/** The shelf: boxes seen or owned, in and out, compared side by side. */
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import type { Label, ShelfItem, ShelfBox } from "../api/schemas";
import { useImportBoxes, usePutBoxes, useRemoveBox, useSaveBox, useShelf } from "../api/shelf";
import { useTables } from "../api/tables";
import { Bar, Button, Fields, Fold, Lead, ProblemNote, TextField, Verdict, YesNo } from "../kit";
import { EMPTY_LABEL, LabelForm, saysEnough } from "../shared/LabelForm";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { SecretLink } from "../shared/SecretLink";
import { BoxPhoto } from "./BoxPhoto";
import { BoxTable } from "./BoxTable";

export default function ShelfPage() {
  const shelf = useShelf();
  const tables = useTables();
  return (
    <Page>
      <title>Your shelf · Reedmace</title>
      <Opening asked={[shelf, tables]}>Opening the shelf…</Opening>
      {shelf.data && tables.data && <Shelf {...shelf.data} />}
    </Page>
  );
}

type Data = NonNullable<ReturnType<typeof useShelf>["data"]>;

function Shelf({ items, given, on_tanks: onTanks, photos }: Data) {
  const [text, setText] = useState("");
  const [picked, setPicked] = useState<number[]>([]);
  const [edited, setEdited] = useState<number | null>(null);
  const words = text.trim().toLowerCase();
  const found = [...items, ...given].filter((one) => wordsOf(one).includes(words));
  const item = items.find((one) => one.id === edited);
  return (
    <Stack>
      <Verdict>{headline(items.length)}</Verdict>
      <Lead>
        Every box is held against each of your tanks on its Filter stage; here they stand side by side. Yes or
        no for any other tank: <Link to="/counter">the counter</Link>.
      </Lead>
      <Fold summary="Put a box on it">
        <NewBox />
      </Fold>
      {items.length + given.length > 8 && <TextField label="Find a box" value={text} onChange={setText} />}
      {item && (
        <EditBox
          key={item.id}
          item={item}
          photo={photos[item.id]}
          onDone={() => {
            setEdited(null);
          }}
        />
      )}
      <BoxTable
        items={picked.length ? found.filter((one) => picked.includes(one.id)) : found}
        onTanks={onTanks}
        photos={photos}
        picked={picked}
        onPick={setPicked}
        onEdit={setEdited}
      />
      {picked.length > 0 && (
        <Bar className="screen-only">
          <Button
            $quiet
            onPress={() => {
              window.print();
            }}
          >
            Print these
          </Button>
          <Button
            $quiet
            onPress={() => {
              setPicked([]);
            }}
          >
            Show all again
          </Button>
        </Bar>
      )}
      <Fold summary="As a file, and by link">
        <Files />
        <ShelfLink />
      </Fold>
    </Stack>
  );
}

function headline(count: number): string {
  if (count === 0) return "No box is on your shelf yet.";
  return count === 1 ? "One box is on your shelf." : `${count} boxes are on your shelf.`;
}

function wordsOf({ box }: ShelfItem): string {
  return [box.label.name, box.label.kind, box.seen_where, box.note].join(" ").toLowerCase();
}

interface Edited {
  label: Label;
  seen_where: string;
  note: string;
  bought: boolean;
}

function BoxFields({ box, onChange }: { box: Edited; onChange: (change: Partial<Edited>) => void }) {
  return (
    <>
      <LabelForm
        label={box.label}
        onChange={(change) => {
          onChange({ label: { ...box.label, ...change } });
        }}
      />
      <Fields>
        <TextField
          label="Seen at"
          value={box.seen_where}
          onChange={(seen_where) => {
            onChange({ seen_where: seen_where.slice(0, 80) });
          }}
        />
        <TextField
          label="Note"
          value={box.note}
          onChange={(note) => {
            onChange({ note: note.slice(0, 400) });
          }}
        />
      </Fields>
      <YesNo
        label="Bought"
        value={box.bought}
        onChange={(bought) => {
          onChange({ bought });
        }}
      />
    </>
  );
}

const BLANK: ShelfBox = {
  label: EMPTY_LABEL,
  filter: null,
  seen_on: null,
  seen_where: "",
  note: "",
  bought: false,
};

function NewBox() {
  const [box, setBox] = useState(BLANK);
  const put = usePutBoxes();
  return (
    <>
      <BoxFields
        box={box}
        onChange={(change) => {
          setBox((now) => ({ ...now, ...change }));
        }}
      />
      <ProblemNote problem={put.error} />
      <Bar>
        <Button
          isDisabled={!saysEnough(box.label) || put.isPending}
          onPress={() => {
            put.mutate([box], {
              onSuccess: () => {
                setBox(BLANK);
              },
            });
          }}
        >
          Put it on the shelf
        </Button>
        <span role="status">{put.isSuccess ? "It is on the shelf." : ""}</span>
      </Bar>
    </>
  );
}

interface EditProps {
  item: ShelfItem;
  /** Digest of its photograph. */
  photo?: string;
  onDone: () => void;
}

function EditBox({ item, photo, onDone }: EditProps) {
  const [box, setBox] = useState(item.box);
  const save = useSaveBox();
  const remove = useRemoveBox();
  const put = usePutBoxes();
  // Figures of a file give way to a label that was written anew.
  const relabelled = JSON.stringify(box.label) !== JSON.stringify(item.box.label);
  return (
    <Edit aria-label={`Change ${item.box.label.name}`}>
      <h2>{item.box.label.name}</h2>
      <BoxFields
        box={box}
        onChange={(change) => {
          setBox((now) => ({ ...now, ...change }));
        }}
      />
      <BoxPhoto id={item.id} name={item.box.label.name} photo={photo} />
      <ProblemNote problem={save.error ?? remove.error ?? put.error} />
      <Bar>
        <Button
          isDisabled={save.isPending}
          onPress={() => {
            save.mutate(
              { id: item.id, box: relabelled ? { ...box, filter: null } : box },
              { onSuccess: onDone },
            );
          }}
        >
          Save it
        </Button>
        <Button $quiet onPress={onDone}>
          Leave it as it was
        </Button>
        <Button
          $quiet
          onPress={() => {
            remove.mutate(item.id, { onSuccess: onDone });
          }}
        >
          Take it off the shelf
        </Button>
      </Bar>
    </Edit>
  );
}

function Files() {
  const taken = useImportBoxes();
  const read = async (files: FileList | null) => {
    const file = files?.[0];
    if (file) taken.mutate(await file.text());
  };
  return (
    <>
      <ProblemNote problem={taken.error} />
      <Bar>
        <a href="/api/shelf.csv" download>
          The shelf as CSV
        </a>
        <FileTrigger acceptedFileTypes={[".csv", "text/csv"]} onSelect={(files) => void read(files)}>
          <Button $quiet>Take boxes from a CSV</Button>
        </FileTrigger>
        <span role="status">
          {taken.data
            ? `${taken.data.length} boxes taken.`
            : "Needed columns: name, kind, box_lph. What is left out is as usual for the kind and size."}
        </span>
      </Bar>
    </>
  );
}

function ShelfLink() {
  return (
    <SecretLink
      title="Show this shelf"
      words="Whoever has the link sees the boxes and their prices, not your notes. A shop can show its own so."
      queryKey={["shelf-link"]}
      read={() => ask(client.GET("/api/shelf/link"))}
      make={async () => {
        const { token } = await ask(client.POST("/api/shelf/link"));
        return { url: `${window.location.origin}/shelf/${token}` };
      }}
      end={() => ask(client.DELETE("/api/shelf/link"))}
    />
  );
}

const Stack = styled.div`
  display: grid;
  gap: 12px;
  max-width: 1100px;
`;
const Edit = styled.section`
  border-left: 4px solid var(--seed);
  padding: 4px 0 4px 14px;
  display: grid;
  gap: 8px;
`;
