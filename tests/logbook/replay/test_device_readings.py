"""What devices send, and what of it is written."""

from datetime import timedelta

from reedmace.logbook.replay.device_readings import PROBE_STEP, STOPPED_W, DeviceReading, entry_of
from tests.support.fitting import CHOSEN, NOW, state_of

STATE = state_of(CHOSEN)


def sent(**figures: float) -> DeviceReading:
    return DeviceReading.model_validate({"key": "device-0001", "at": NOW, **figures})


def test_a_meter_writes_a_flow_and_a_kit_a_test_without_warmth() -> None:
    flow = entry_of("flow-meter", sent(flow_lph=420), STATE, 500.0, "f1")
    assert flow is not None
    assert flow.model_dump(include={"measured_lph", "computed_lph", "filter_key"}) == {
        "measured_lph": 420,
        "computed_lph": 500,
        "filter_key": "f1",
    }
    test = entry_of("test-kit", sent(ammonia_ppm=0.5, temperature_c=31), STATE, None)
    assert test is not None
    assert test.model_dump(include={"ammonia_ppm", "temperature_c"}) == {"ammonia_ppm": 0.5, "temperature_c": None}
    assert entry_of("test-kit", sent(temperature_c=31), STATE, None) is None


def test_a_plug_writes_only_when_the_power_goes_or_comes_back() -> None:
    assert entry_of("smart-plug", sent(watts=8), STATE, None) is None
    off = entry_of("smart-plug", sent(watts=STOPPED_W - 0.1), STATE, None)
    assert off is not None
    stopped = state_of(CHOSEN, (1, {"kind": "outage", "running": False}))
    assert entry_of("smart-plug", sent(watts=0), stopped, None) is None
    assert entry_of("smart-plug", sent(watts=8), stopped, None) is not None


def test_a_probe_writes_at_a_step_and_once_a_day() -> None:
    def after(hours: float, before: float, now: float) -> bool:
        state = state_of(CHOSEN, (hours / 24, {"kind": "reading", "temperature_c": before}))
        return entry_of("thermometer", sent(temperature_c=now), state, None) is not None

    step = PROBE_STEP["temperature_c"]
    assert entry_of("thermometer", sent(temperature_c=25), STATE, None) is not None
    assert not after(2, 25, 25 + step - 0.1)
    assert after(2, 25, 25 + step)
    assert after(2, 25, 25 - step)
    assert after(24, 25, 25)


def test_an_unknown_device_and_an_empty_reading_write_nothing() -> None:
    assert entry_of("toaster", sent(watts=900), STATE, None) is None
    assert entry_of("flow-meter", sent(watts=900), STATE, None) is None
    later = sent(ph=7).model_copy(update={"at": NOW + timedelta(days=1)})
    assert entry_of("thermometer", later, STATE, None) is None
