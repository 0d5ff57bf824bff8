"""What ./reedmace runs."""

STANDINS = ("flow-meter", "smart-plug", "test-kit", "thermometer", "ph-probe")
"""What `standin` plays."""
