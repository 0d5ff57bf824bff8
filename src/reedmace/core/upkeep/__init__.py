"""Keeping a filter running: how its flow fades and when it wants service."""

from reedmace.core.upkeep.fade import FlowFadeAnswer, FlowFadeQuestion, flow_fade

__all__ = ["FlowFadeAnswer", "FlowFadeQuestion", "flow_fade"]
