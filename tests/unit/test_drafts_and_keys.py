"""Drafts of plans, keys of creating calls, and where a kit's card lies, kept on the device."""

from playwright.sync_api import Page

SAVED = "({ litres: 60, tap: { kh: 4, ph: 7 }, media: ['foam'] })"


def draft(page: Page, saved: str = SAVED, tank: int = 7) -> None:
    page.evaluate(
        f"void modules.mount('draft', () => modules.drafts.useDraft({tank}, 'tank', window.saved ??= {saved}, 31))"
    )
    page.wait_for_function("() => modules.results.draft")


def change(page: Page, script: str) -> None:
    page.evaluate(f"modules.results.draft.set({script})")
    page.wait_for_function("() => modules.results.draft.dirty")


def test_a_draft_stands_over_the_saved_plan_and_comes_back_after_a_reload(bare: Page) -> None:
    draft(bare)
    assert bare.evaluate("[modules.results.draft.dirty, modules.results.draft.value.litres]") == [False, 60]
    change(bare, "(v) => ({ ...v, litres: 75 })")
    bare.reload()
    draft(bare)
    assert bare.evaluate("[modules.results.draft.dirty, modules.results.draft.value.litres]") == [True, 75]
    assert bare.evaluate("modules.results.draft.basedOn") == 31
    bare.evaluate("modules.results.draft.drop()")
    bare.wait_for_function("() => !modules.results.draft.dirty")
    assert bare.evaluate("modules.results.draft.value.litres") == 60
    assert bare.evaluate("Object.keys(localStorage)") == []


def test_a_draft_of_an_older_version_gets_the_fields_it_lacks(bare: Page) -> None:
    old = "{ value: { litres: 75, tap: { kh: 9 } }, basedOn: 12 }"
    bare.evaluate(f"localStorage.setItem('reedmace.draft.7.tank', JSON.stringify({old}))")
    draft(bare)
    assert bare.evaluate("modules.results.draft.value") == {"litres": 75, "tap": {"kh": 9, "ph": 7}, "media": ["foam"]}
    assert bare.evaluate("modules.results.draft.basedOn") == 12


def test_a_broken_draft_is_no_draft_and_another_tanks_is_not_read(bare: Page) -> None:
    bare.evaluate("localStorage.setItem('reedmace.draft.7.tank', '{')")
    bare.evaluate('localStorage.setItem(\'reedmace.draft.8.tank\', \'{"value":{"litres":1},"basedOn":null}\')')
    draft(bare)
    assert bare.evaluate("[modules.results.draft.dirty, modules.results.draft.value.litres]") == [False, 60]


def test_a_creating_call_keeps_its_key_until_it_is_answered(bare: Page) -> None:
    first, again, other, none = bare.evaluate(
        "['/api/tanks', '/api/tanks', '/api/rooms', '/api/today'].map((path) =>"
        " modules.creatingKeys.creatingKey(path, '{}'))"
    )
    assert first == again != other
    assert none is None
    # A broken answer says nothing; a real one ends it.
    for status, same in ((503, True), (201, False)):
        bare.evaluate("([key, status]) => modules.creatingKeys.keyAnswered(key, status)", [first, status])
        assert (bare.evaluate("modules.creatingKeys.creatingKey('/api/tanks', '{}')") == first) is same
    assert bare.evaluate("modules.creatingKeys.creatingKey('/api/tanks', '{\"name\":\"B\"}')") != first


def test_a_card_touched_once_is_laid_over_the_next_picture(bare: Page) -> None:
    points = [{"x": 10, "y": 10}, {"x": 20, "y": 12}, {"x": 40, "y": 16}]
    bare.evaluate("(points) => modules.cardLayout.keepLayout('ammonia', points)", points)
    bare.reload()
    # Twice as large and moved: the step between keeps its place between the ends.
    placed = bare.evaluate(
        "() => { const kept = modules.cardLayout.keptLayout('ammonia', 3);"
        " return modules.cardLayout.placed(kept, { x: 100, y: 100 }, { x: 160, y: 112 }); }"
    )
    assert [(round(p["x"], 6), round(p["y"], 6)) for p in placed] == [(100, 100), (120, 104), (160, 112)]
    assert bare.evaluate("modules.cardLayout.keptLayout('ammonia', 4)") is None
    bare.evaluate("modules.cardLayout.forgetLayout('ammonia', 3)")
    assert bare.evaluate("modules.cardLayout.keptLayout('ammonia', 3)") is None
