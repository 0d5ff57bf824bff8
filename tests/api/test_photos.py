"""Photographs are private, kept once, within limits, and on the neighbour's page only where chosen."""

import io
import zipfile
from datetime import UTC, datetime

import pytest
from PIL import Image

from reedmace.database import connect
from reedmace.store.notice_models import PhotoRow

AT = datetime(2026, 11, 29, 8, 0, tzinfo=UTC).isoformat()


def jpeg(colour: str = "teal", size: tuple[int, int] = (80, 60)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "JPEG")
    return out.getvalue()


def put(keeper, tank: int, *, key: str = "photo-0001", body: bytes | None = None, **more: str):
    return keeper.client.post(
        f"/api/tanks/{tank}/photos",
        query_string={"key": key, "at": AT, **more},
        data=jpeg() if body is None else body,
        headers={"X-CSRF-Token": keeper.token, "Content-Type": "image/jpeg"},
    )


def test_one_is_kept_once_and_comes_back_as_a_picture_with_a_digest(keeper) -> None:
    tank = keeper.tank()
    made = put(keeper, tank, words="day 9", of="cloud")
    assert made.status_code == 201, made.json
    assert put(keeper, tank).json["id"] == made.json["id"]
    (listed,) = keeper.get(f"/api/tanks/{tank}/photos").json["photos"]
    assert (listed["words"], listed["of"], listed["width"], listed["shown"]) == ("day 9", "cloud", 80, False)
    path = f"/api/tanks/{tank}/photos/{listed['id']}.jpg"
    picture = keeper.get(path)
    assert picture.mimetype == "image/jpeg"
    assert Image.open(io.BytesIO(picture.data)).size == (80, 60)
    assert "private" in picture.headers["Cache-Control"]
    again = keeper.client.get(path, headers={"If-None-Match": picture.headers["ETag"]})
    assert (again.status_code, again.data) == (304, b"")
    assert keeper.client.get(f"{path}?size=small", headers={"If-None-Match": picture.headers["ETag"]}).data


def test_nobody_else_sees_or_touches_it(keeper, sign_up, visitor) -> None:
    tank = keeper.tank()
    photo = put(keeper, tank).json["id"]
    other = sign_up()
    elsewhere = other.tank()
    for path in (f"/api/tanks/{tank}/photos", f"/api/tanks/{tank}/photos/{photo}.jpg"):
        assert other.get(path).status_code == 404
        assert visitor().get(path).status_code == 401
    assert other.get(f"/api/tanks/{elsewhere}/photos/{photo}.jpg").status_code == 404
    assert other.send("DELETE", f"/api/tanks/{tank}/photos/{photo}").status_code == 404
    assert other.send("DELETE", f"/api/tanks/{elsewhere}/photos/{photo}").status_code == 404
    assert other.send("PUT", f"/api/tanks/{elsewhere}/photos/{photo}", {"shown": True}).status_code == 404
    assert put(other, tank, key="photo-0002").status_code == 404
    assert len(keeper.get(f"/api/tanks/{tank}/photos").json["photos"]) == 1


def test_it_stands_on_the_neighbours_page_only_where_chosen(keeper, visitor) -> None:
    tank = keeper.tank()
    keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}})
    hidden, shown = (put(keeper, tank, key=f"photo-000{n}").json["id"] for n in (1, 2))
    keeper.send("PUT", f"/api/tanks/{tank}/photos/{shown}", {"shown": True})
    token = keeper.send("POST", f"/api/tanks/{tank}/link").json["url"].rsplit("/", 1)[1]
    looker = visitor()
    assert [p["id"] for p in looker.get(f"/api/look/{token}").json["photos"]] == [shown]
    assert looker.get(f"/api/look/{token}/photos/{shown}.jpg").mimetype == "image/jpeg"
    assert looker.get(f"/api/look/{token}/photos/{hidden}.jpg").status_code == 404
    keeper.send("DELETE", f"/api/tanks/{tank}/link")
    assert looker.get(f"/api/look/{token}/photos/{shown}.jpg").status_code == 404


def test_taken_away_it_is_gone_and_with_its_tank_too(keeper, mariadb) -> None:
    tank = keeper.tank()
    first, second = (put(keeper, tank, key=f"photo-000{n}").json["id"] for n in (1, 2))
    left = keeper.send("DELETE", f"/api/tanks/{tank}/photos/{first}").json["photos"]
    assert [p["id"] for p in left] == [second]
    assert keeper.get(f"/api/tanks/{tank}/photos/{first}.jpg").status_code == 404
    keeper.send("POST", "/api/account/close", {"password": "reed and water"})
    database = connect(mariadb.app_url)
    assert not PhotoRow.select().where(PhotoRow.tank == tank).bind(database).exists()
    database.close()


def test_a_helper_adds_and_takes_away_their_own_only_and_a_reader_looks(sign_up) -> None:
    owner, helper, reader = sign_up(), sign_up(), sign_up()
    tank = owner.tank()
    for hand, role in ((helper, "helper"), (reader, "reader")):
        url = owner.send("POST", "/api/household/invites", {"role": role}).json["url"]
        hand.send("POST", f"/api/invites/{url.rsplit('/', 1)[1]}")
    owners, helpers = put(owner, tank).json["id"], put(helper, tank, key="photo-0002").json["id"]
    assert put(reader, tank, key="photo-0003").status_code == 403
    assert reader.get(f"/api/tanks/{tank}/photos/{owners}.jpg").status_code == 200
    assert helper.send("DELETE", f"/api/tanks/{tank}/photos/{owners}").status_code == 404
    assert helper.send("PUT", f"/api/tanks/{tank}/photos/{owners}", {"shown": True}).status_code == 403
    assert helper.send("DELETE", f"/api/tanks/{tank}/photos/{helpers}").status_code == 200


@pytest.mark.parametrize(
    ("body", "status"),
    [(b"", 422), (b"<svg></svg>", 422), (jpeg()[:400], 422), (b"x" * 21_000_000, 413)],
    ids=["empty", "svg", "cut off", "too large"],
)
def test_what_is_no_picture_is_refused_and_nothing_is_kept(keeper, body: bytes, status: int) -> None:
    tank = keeper.tank()
    answer = put(keeper, tank, body=body)
    assert answer.status_code == status
    assert answer.json["detail"]
    assert keeper.get(f"/api/tanks/{tank}/photos").json["photos"] == []


@pytest.mark.parametrize(
    "wrong",
    [{"key": "short"}, {"of": "moon"}, {"at": "yesterday"}, {"at": "3000-01-01T00:00:00Z"}, {"words": "x" * 301}],
)
def test_words_about_it_are_held_to_their_ranges(keeper, wrong: dict) -> None:
    assert put(keeper, keeper.tank(), **wrong).status_code == 422


def test_a_tank_and_an_account_hold_so_many(keeper, monkeypatch) -> None:
    from reedmace.store import photos

    tank = keeper.tank()
    monkeypatch.setattr(photos, "MOST_PHOTOS", 1)
    assert put(keeper, tank).status_code == 201
    assert put(keeper, tank, key="photo-0002").status_code in (409, 429)
    assert put(keeper, tank).status_code == 201


def test_one_belongs_to_a_line_and_goes_out_and_in_with_the_logbook(keeper) -> None:
    tank = keeper.tank("Hall")
    keeper.write(tank, {"kind": "note", "text": "A fin heals"}, key="note-0000001")
    put(keeper, tank, entry_key="note-0000001", of="animal", words="left fin")
    hidden = put(keeper, tank, key="photo-0002").json["id"]
    keeper.send("PUT", f"/api/tanks/{tank}/photos/{hidden}", {"shown": True})
    packed = keeper.get(f"/api/tanks/{tank}/bundle.zip")
    assert packed.mimetype == "application/zip"
    made = send_zip(keeper, packed.data)
    assert (made.status_code, made.json["entries"]) == (201, 1), made.json
    photos = keeper.get(f"/api/tanks/{made.json['tank_id']}/photos").json["photos"]
    of = [(p["key"], p["entry_key"], p["of"], p["words"], p["shown"]) for p in photos]
    assert of == [
        ("photo-0001", "note-0000001", "animal", "left fin", False),
        ("photo-0002", None, "tank", "", True),
    ]
    entries = keeper.get(f"/api/tanks/{made.json['tank_id']}/entries").json["entries"]
    assert [e["key"] for e in entries] == ["note-0000001"]


def send_zip(keeper, data: bytes):
    headers = {"X-CSRF-Token": keeper.token, "Content-Type": "application/zip"}
    return keeper.client.post("/api/bundles/zip", data=data, headers=headers)


def rezipped(data: bytes, **members: bytes | None) -> bytes:
    """The same zip with members replaced, or left out where None; a name's "." is written "__"."""
    new = {name.replace("__", "."): content for name, content in members.items()}
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for name in old.namelist():
            content = new.get(name, old.read(name))
            if content is not None:
                packed.writestr(name, content)
    return out.getvalue()


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda data: b"no zip", "is no zip"),
        (lambda data: data[: len(data) // 2], "is no zip, or is cut off"),
        (lambda data: rezipped(data, bundle__json=None), "bundle.json is missing"),
        (lambda data: rezipped(data, photos__json=b"[1]"), "photos.json is not usable"),
        (lambda data: rezipped(data, bundle__json=b'{"tank": 1}'), ""),
        (lambda data: rezipped(data, bundle__json=b"\xff{"), ""),
        (lambda data: rezipped(data, **{"photos/photo-0001__jpg": b"<svg/>"}), "is no picture"),
        (lambda data: rezipped(data, **{"photos/photo-0001__jpg": bytes(3_000_000)}), "is over 2 MB"),
        (lambda data: rezipped(data, bundle__json=bytes(60_000_000)), "is over 48 MB"),
    ],
    ids=[
        "no zip",
        "cut off",
        "no logbook",
        "bad index",
        "bad logbook",
        "no text",
        "no picture",
        "large picture",
        "a bomb",
    ],
)
def test_a_zip_that_is_wrong_is_told_and_makes_nothing(keeper, change, says: str) -> None:
    tank = keeper.tank()
    put(keeper, tank)
    answer = send_zip(keeper, change(keeper.get(f"/api/tanks/{tank}/bundle.zip").data))
    assert answer.status_code == 422, answer.json
    assert says in answer.json["detail"]
    assert len(keeper.get("/api/tanks").json["tanks"]) == 1


def test_a_box_of_the_shelf_has_one_photograph_of_its_owner_alone(keeper, sign_up, visitor) -> None:
    label = {"name": "Reed 200", "box_lph": 200}
    made = keeper.send("POST", "/api/shelf", {"boxes": [{"key": "box-0000001", "box": {"label": label}}]})
    assert made.status_code == 201, made.json
    box = made.json["items"][0]["id"]
    path = f"/api/shelf/{box}/photo"

    def send(one, body: bytes):
        return one.client.put(path, data=body, headers={"X-CSRF-Token": one.token, "Content-Type": "image/jpeg"})

    assert keeper.get(f"{path}.jpg").status_code == 404
    first = send(keeper, jpeg()).json["photos"]
    assert list(first) == [str(box)]
    assert send(keeper, jpeg("maroon")).json["photos"] != first
    assert keeper.get(f"{path}.jpg?size=small").mimetype == "image/jpeg"
    assert send(keeper, b"%PDF").json["detail"].startswith("The photograph is no picture")
    other = sign_up()
    assert send(other, jpeg()).status_code == 404
    assert other.get(f"{path}.jpg").status_code == 404
    assert other.send("DELETE", path).status_code == 404
    assert visitor().get(f"{path}.jpg").status_code == 401
    assert keeper.send("DELETE", path).json["photos"] == {}
    send(keeper, jpeg())
    assert keeper.send("DELETE", f"/api/shelf/{box}").status_code == 200
    assert keeper.get(f"{path}.jpg").status_code == 404
