/** A sentence in which each kind of filter, where it is first named, leads to its page. */
import { Fragment } from "react";
import { Link } from "react-router";
import { useTables } from "../api/tables";

export function KindLinks({ text }: { text: string }) {
  const kinds = useTables().data?.kinds ?? [];
  const parts: { words: string; kind?: string }[] = [{ words: text }];
  for (const { kind, title } of kinds) {
    // "The box" is what every kind comes in; only "Box" is the kind.
    const named = new RegExp(`\\b${title}s?\\b`, kind === "box" ? "" : "i");
    const at = parts.findIndex((part) => !part.kind && named.test(part.words));
    const part = parts[at];
    const found = part && named.exec(part.words);
    if (!part || !found) continue;
    const [word] = found;
    parts.splice(
      at,
      1,
      { words: part.words.slice(0, found.index) },
      { words: word, kind },
      { words: part.words.slice(found.index + word.length) },
    );
  }
  return (
    <>
      {parts.map(({ words, kind }, i) => (
        <Fragment key={i}>{kind ? <Link to={`/kinds/${kind}`}>{words}</Link> : words}</Fragment>
      ))}
    </>
  );
}
