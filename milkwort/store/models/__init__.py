"""The tables, a file for what belongs together; rules about them live beside them."""

from milkwort.store.models.base import Base
from milkwort.store.models.keywords import Call, Keyword, Reading, SetAside
from milkwort.store.models.of_client import (
    FileShape,
    NegativeList,
    Page,
    PastList,
    Recipe,
    RivalList,
)
from milkwort.store.models.plans import Assumption, Client, Offer, Plan
from milkwort.store.models.records import (
    AccountSheet,
    HandOver,
    HandOverFile,
    Journal,
    PracticeAccount,
    PracticeSending,
    ResultImport,
)
from milkwort.store.models.structure import (
    Ad,
    AdGroup,
    Campaign,
    Negative,
    PinnedList,
    ShownThing,
    Spot,
    Thing,
)

__all__ = [
    "AccountSheet",
    "Ad",
    "AdGroup",
    "Assumption",
    "Base",
    "Call",
    "Campaign",
    "Client",
    "FileShape",
    "HandOver",
    "HandOverFile",
    "Journal",
    "Keyword",
    "Negative",
    "NegativeList",
    "Offer",
    "Page",
    "PastList",
    "PinnedList",
    "Plan",
    "PracticeAccount",
    "PracticeSending",
    "Reading",
    "Recipe",
    "ResultImport",
    "RivalList",
    "SetAside",
    "ShownThing",
    "Spot",
    "Thing",
]
