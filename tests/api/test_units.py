"""A keeper's units: from the browser's locale at sign-up, changed in the account, followed by every sentence."""

import brotli
import pytest

from reedmace.core.quantity.keeper_units import with_comma

PASSWORD = "three words apart"


def sign_up(keeper, email: str, locale: str = ""):
    return keeper.enter("POST", "/api/account", {"email": email, "password": PASSWORD, "locale": locale})


@pytest.mark.parametrize(
    ("locale", "units"),
    [
        ("en-US", ("US gal", "in", "°F", "USD")),
        ("es-US", ("US gal", "in", "°F", "USD")),
        ("en-GB", ("L", "cm", "°C", "GBP")),
        ("de-DE", ("L", "cm", "°C", "EUR")),
        ("zh-Hans-CN", ("L", "cm", "°C", "CNY")),
        ("en", ("L", "cm", "°C", "")),
        ("nonsense", ("L", "cm", "°C", "")),
        ("", ("L", "cm", "°C", "")),
    ],
)
def test_a_new_account_reads_as_its_browser_does(visitor, locale, units) -> None:
    state = sign_up(visitor(), f"u-{locale or 'none'}@yard.example", locale).json
    assert tuple(state["units"][k] for k in ("volume", "length", "temperature", "currency")) == units
    names = {w["home"]: w["name"] for w in state["written"]}
    assert (names["L"], names["cm"], names["°C"]) == units[:3]


def test_units_are_kept_and_answer_every_sentence(visitor) -> None:
    keeper = visitor()
    sign_up(keeper, "gallons@yard.example")
    tank = keeper.tank()
    before = keeper.send("POST", f"/api/tanks/{tank}/views/tank", {}).json
    wanted = {"volume": "US gal", "length": "in", "temperature": "°F", "currency": "USD", "decimal": "."}
    assert keeper.send("PUT", "/api/account/units", wanted).json["units"] == wanted
    after = keeper.send("POST", f"/api/tanks/{tank}/views/tank", {}).json
    assert " L of water" in before["volume"]["verdict"]
    assert " US gal of water" in after["volume"]["verdict"]
    assert after["volume"]["net_l"] == before["volume"]["net_l"]
    # Another browser of the same keeper, and nobody else.
    again = visitor()
    again.enter("POST", "/api/session", {"email": "gallons@yard.example", "password": PASSWORD})
    assert again.get("/api/session").json["units"] == wanted
    assert visitor().get("/api/session").json["units"]["volume"] == "L"


def test_a_page_may_say_its_units_with_each_question(visitor) -> None:
    asked = {"shape": "box", "length_cm": 60, "width_cm": 30, "height_cm": 36}
    ask = lambda units: visitor().send("POST", "/api/compute/tank-volume", asked, headers={"Reedmace-Units": units})  # noqa: E731
    assert " imp gal of water" in ask("imp gal;cm;C;").json["verdict"]
    for odd in ("", "buckets;cm;C;", "US gal;in", ";;;", "US gal;in;F;dollars"):
        answer = ask(odd)
        assert answer.status_code == 200
        assert " L of water" in answer.json["verdict"]


@pytest.mark.parametrize(
    "wrong",
    [{"volume": "buckets"}, {"currency": "dollars"}, {"length": "ell"}, {"temperature": "K"}, {"colour": "red"}],
)
def test_units_nobody_knows_are_refused_by_name(visitor, wrong) -> None:
    keeper = visitor()
    sign_up(keeper, f"odd-{next(iter(wrong))}@yard.example")
    answer = keeper.send("PUT", "/api/account/units", wrong)
    assert answer.status_code == 422
    assert next(iter(wrong)) in answer.json["detail"]
    assert visitor().send("PUT", "/api/account/units", {}).status_code == 401


def test_who_writes_a_comma_reads_one_in_every_sentence_and_what_was_typed_stays(visitor) -> None:
    keeper = visitor()
    wanted = {"email": "comma@yard.example", "password": PASSWORD, "locale": "de-DE", "decimal": ","}
    assert keeper.enter("POST", "/api/account", wanted).json["units"]["decimal"] == ","
    tank = keeper.tank("Shelf 2.5")
    sizes = {"kind": "tank-plan", "tank": {"length_cm": 61.5, "width_cm": 31, "height_cm": 36}}
    keeper.write(tank, sizes)
    keeper.write(tank, {"kind": "note", "text": "pump 2.5 W"})
    told = keeper.send("POST", f"/api/tanks/{tank}/views/tank", {}).json["volume"]
    assert "61,5" in str(told["working"])
    assert isinstance(told["net_l"], float)
    shown = keeper.get(f"/api/tanks/{tank}").json
    assert shown["tank"]["name"] == "Shelf 2.5"
    assert "pump 2.5 W" in str(keeper.get(f"/api/tanks/{tank}/entries").json)
    pressed = keeper.send("POST", f"/api/tanks/{tank}/views/tank", {}, headers={"Accept-Encoding": "br"})
    assert pressed.headers["Content-Encoding"] == "br"
    assert "61,5" in brotli.decompress(pressed.data).decode()
    by_header = keeper.send(
        "POST", f"/api/tanks/{tank}/views/tank", {}, headers={"Reedmace-Units": "L;cm;C;EUR;point"}
    ).json["volume"]
    assert "61.5" in str(by_header["working"])


@pytest.mark.parametrize(
    ("text", "written"),
    [
        ("moves 2.4 times, 1,750 L/h", "moves 2,4 times, 1.750 L/h"),
        ("on 29.11.2026 at 12:30", "on 29.11.2026 at 12:30"),
        ("version 0.2.1 of it", "version 0.2.1 of it"),
        ("from 0.05 to 12,345.6 mg.", "from 0,05 to 12.345,6 mg."),
        ("a 0.25, b 3.", "a 0,25, b 3."),
        ("2.4", "2.4"),
        ('"1,200" may be 1200 or 1.2.', '"1,200" may be 1200 or 1,2.'),
    ],
)
def test_only_figures_are_written_with_a_comma(text, written) -> None:
    assert with_comma({"verdict": text}) == {"verdict": written}
    assert with_comma({"name": text}) == {"name": text}
