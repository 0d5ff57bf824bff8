/** Boxes side by side: what is printed, price, where seen, and the tank each hangs on. */
import { styled } from "styled-components";
import type { ShelfItem } from "../api/schemas";
import { boxPictureOf } from "../api/shelf";
import { useLoadedTables } from "../api/tables";
import { InlineButton, YesNo } from "../kit";
import { money, short, show } from "../quantity/format";

const MOST_SHOWN = 100;

interface Props {
  items: ShelfItem[];
  onTanks?: Record<string, string[]>;
  /** Digest of each box's photograph. */
  photos?: Record<string, string>;
  /** Left out on a shelf that is only looked at. */
  picked?: number[];
  onPick?: (ids: number[]) => void;
  onEdit?: (id: number) => void;
}

export function BoxTable({ items, onTanks = {}, photos = {}, picked = [], onPick, onEdit }: Props) {
  const titles = new Map(useLoadedTables().kinds.map((k) => [k.kind as string, k.title]));
  const shown = items.slice(0, MOST_SHOWN);
  return (
    <Scroll>
      <table>
        <thead>
          <tr>
            <th scope="col">Box</th>
            <th scope="col">Kind</th>
            <th scope="col">Flow printed</th>
            <th scope="col">Lift</th>
            <th scope="col">Watts</th>
            <th scope="col">“Tanks up to”</th>
            <th scope="col">Price</th>
            <th scope="col">Where</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ id, box }) => (
            <tr key={id}>
              <th scope="row">
                {photos[id] && (
                  <img
                    src={boxPictureOf(id, photos[id], "small")}
                    alt={`The box of ${box.label.name}`}
                    loading="lazy"
                    width={56}
                    height={42}
                  />
                )}
                {onPick ? (
                  <YesNo
                    label={box.label.name}
                    value={picked.includes(id)}
                    onChange={(on) => {
                      onPick(on ? [...picked, id] : picked.filter((one) => one !== id));
                    }}
                  />
                ) : (
                  box.label.name
                )}
              </th>
              <td>{box.label.kind ? titles.get(box.label.kind) : "not said"}</td>
              <td>{flowOf(box.label)}</td>
              <td>{box.label.max_head_m != null && show(box.label.max_head_m, "m", 1)}</td>
              <td>{box.label.watts != null && `${short(box.label.watts, 1)} W`}</td>
              <td>{box.label.tank_up_to_l != null && show(box.label.tank_up_to_l, "L")}</td>
              <td>{box.label.price != null && money(box.label.price, 0)}</td>
              <td>
                {[box.bought && "bought", ...(onTanks[id] ?? []), box.seen_where].filter(Boolean).join(", ")}{" "}
                {onEdit && id > 0 && (
                  <InlineButton
                    aria-label={`Change ${box.label.name}`}
                    onPress={() => {
                      onEdit(id);
                    }}
                  >
                    change
                  </InlineButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {items.length > shown.length && <p>{items.length - shown.length} more: find them by name.</p>}
    </Scroll>
  );
}

function flowOf({ box_lph: lph, box_us_gal_per_hour: gph }: ShelfItem["box"]["label"]): string {
  return [lph != null && show(lph, "L/h"), gph != null && `${gph} US gal/h`].filter(Boolean).join(", ");
}

const Scroll = styled.div`
  overflow-x: auto;
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.9688rem;
  }
  th,
  td {
    text-align: left;
    padding: 2px 14px 2px 0;
    border-bottom: 1px solid var(--line);
    vertical-align: middle;
    white-space: nowrap;
  }
  td:last-child {
    white-space: normal;
  }
  thead th {
    color: var(--ink-soft);
    font-weight: 400;
    font-size: 0.875rem;
  }
  tbody th {
    font-weight: 600;
  }
  img {
    object-fit: cover;
    display: block;
  }
`;
