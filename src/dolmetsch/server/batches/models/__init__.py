"""Batches and their entries.

An entry is never changed (a trigger in the database refuses it): a wrong one is corrected by a later
entry that names it. Weights are grams to 12 places, so that every typed pound and ounce is exact.
"""

from dolmetsch.server.batches.models.batch import Batch
from dolmetsch.server.batches.models.entry import Entry
from dolmetsch.server.batches.models.lines import LOT_MARK, ExtraLine, LotLine, UsedLine, Weighing
from dolmetsch.server.batches.models.outlook import (
    BatchFacts,
    BatchWay,
    Forecast,
    ForecastScore,
    ShopSaving,
    StepYield,
)
from dolmetsch.server.batches.models.terms import FryLine, PolicyLine, PortionLine, ShopPackLine

__all__ = [
    "LOT_MARK",
    "Batch",
    "BatchFacts",
    "BatchWay",
    "Entry",
    "ExtraLine",
    "Forecast",
    "ForecastScore",
    "FryLine",
    "LotLine",
    "PolicyLine",
    "PortionLine",
    "ShopPackLine",
    "ShopSaving",
    "StepYield",
    "UsedLine",
    "Weighing",
]
