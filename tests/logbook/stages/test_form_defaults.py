"""Initial values of forms are valid and their own each time."""

from reedmace.logbook.stages.form_defaults import FormDefaults


def test_each_blank_is_a_valid_record() -> None:
    blank = FormDefaults()
    assert FormDefaults.model_validate(blank.model_dump()) == blank
    assert {p.form for p in blank.products} == {"ammonium-chloride", "ammonia-solution", "label"}
    assert blank.species.temperature_low_c < blank.species.temperature_high_c


def test_a_list_that_is_changed_changes_no_other_blank() -> None:
    one = FormDefaults()
    one.fittings.clear()
    assert FormDefaults().fittings
