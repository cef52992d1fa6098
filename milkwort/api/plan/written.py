"""The written ads of one plan at one revision: what they are made of, what is wrong with them."""

from __future__ import annotations

from functools import cached_property

from milkwort.core.arrange.ads.checks import AdFault, faults_of, faults_of_group
from milkwort.core.arrange.ads.of_groups import GroupFacts, facts_of_groups
from milkwort.core.arrange.ads.text import Ad
from milkwort.core.arrange.main_words import MainWord, main_words
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.arrange.things import Thing, prices_of_things
from milkwort.core.brief.platform import Profile, profile_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.store.ads import ads_by_group
from milkwort.store.plans import PlanRecord
from milkwort.store.sheet import Sheet

__all__ = ["Written"]


class Written:
    """What a plan's ads have to do with it, each part worked out when it is first asked for.

    Parameters
    ----------
    record : PlanRecord
    sheet : Sheet
    result : PlanResult
    """

    def __init__(self, record: PlanRecord, sheet: Sheet, result: PlanResult) -> None:
        self._record, self._sheet, self._result = record, sheet, result

    @cached_property
    def profile(self) -> Profile:
        """The rules of the plan's ad platform."""
        return profile_of(self._record.values["profile"])

    @property
    def lexicon(self) -> Lexicon:
        """The shipped words with the plan's own."""
        return lexicon_of(self._record.brief)

    @cached_property
    def words(self) -> list[list[MainWord]]:
        """The main words of each group, by its number."""
        return main_words(self._result, len(self._sheet.structure.groups), self.lexicon)

    @cached_property
    def facts(self) -> list[GroupFacts]:
        """What the ads of each group are made of, by its number."""
        structure = self._sheet.structure
        number = {c.id: at for at, c in enumerate(structure.campaigns)}
        return facts_of_groups(
            self._result, [entry.text for entry in self._sheet.entries], self.words,
            [number[g.campaign_id] for g in structure.groups], self.things,
        )  # fmt: skip

    @cached_property
    def things(self) -> dict[int, list[Thing]]:
        """What each group shows, by its number, also what can't be delivered."""
        structure = self._sheet.structure
        numbers = {g.id: at for at, g in enumerate(structure.groups)}
        of_id = {one.id: one.thing for one in structure.things}
        found: dict[int, list[Thing]] = {}
        for group, thing in structure.shown:
            found.setdefault(numbers[group], []).append(of_id[thing])
        return found

    @cached_property
    def without(self) -> list[int]:
        """Ids of the groups with kept keywords and no ad; none where ads aren't written."""
        if not self.profile.written_ads:
            return []
        table = self._sheet.table
        kept = set(table.group[table.kept].tolist())
        written = {one.group_id for one in self._record.ads}
        groups = self._sheet.structure.groups
        return [g.id for at, g in enumerate(groups) if at in kept and g.id not in written]

    @cached_property
    def faults(self) -> dict[int, list[AdFault]]:
        """What is wrong with each ad, by its id."""
        found: dict[int, list[AdFault]] = {}
        numbers = {g.id: at for at, g in enumerate(self._sheet.structure.groups)}
        for group_id, ads in ads_by_group(self._record.ads).items():
            number = numbers[group_id]
            fillings = self.facts[number].fillings
            together = faults_of_group([one.ad for one in ads], fillings, self.profile)
            for one, more in zip(ads, together, strict=True):
                found[one.id] = [*self.faults_of(number, one.ad), *more]
        return found

    def faults_of(self, number: int, ad: Ad) -> list[AdFault]:
        """Return what is wrong with an ad of a group, whatever else the group has."""
        facts = self.facts[number]
        return faults_of(
            ad, facts.fillings, self._record.brief, self.profile, facts.showing,
            prices_of_things(facts.things),
        )  # fmt: skip
