"""An older answer never stands for a newer one: what a change brought stays, what began before it is fetched anew."""

from playwright.sync_api import Page

UNDER_WAY = """
const queries = new modules.QueryClient();
let answer;
const asked = () => new Promise((resolve) => { answer = resolve; });
const first = queries.prefetchQuery({ queryKey: ["list"], queryFn: asked });
"""


def test_an_answer_asked_before_a_change_does_not_replace_what_the_change_brought(bare: Page) -> None:
    shown = bare.evaluate(f"""async () => {{
        {UNDER_WAY}
        modules.replaceData(queries, ["list"], "new");
        answer("old");
        await first;
        await new Promise((r) => setTimeout(r, 20));
        return queries.getQueryData(["list"]);
    }}""")
    assert shown == "new"


def test_an_answer_asked_before_a_change_is_not_taken_for_fresh_after_it(bare: Page) -> None:
    fresh = bare.evaluate(f"""async () => {{
        {UNDER_WAY}
        await modules.invalidate(queries);
        answer("old");
        await first;
        await new Promise((r) => setTimeout(r, 20));
        const state = queries.getQueryState(["list"]);
        return state.data !== undefined && !state.isInvalidated;
    }}""")
    assert fresh is False
