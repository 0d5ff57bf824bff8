"""A keeper's units: from the browser's locale at sign-up, changed in the account, followed by every sentence."""

import pytest

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
    wanted = {"volume": "US gal", "length": "in", "temperature": "°F", "currency": "USD"}
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
