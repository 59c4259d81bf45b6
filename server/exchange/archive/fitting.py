"""How what is in an archive meets what a crew has already: people by name, shoes by name and figures, scraps by tag."""

from dataclasses import dataclass, field
from itertools import count
from typing import Any

from django.utils.dateparse import parse_datetime

from server.accounts.models import Crew, Membership, User, name_of
from server.cutting.models import Bar
from server.exchange.archive.container import ArchiveReader
from server.exchange.archive.tables import BY_MODEL, PEOPLE, shoe_named
from server.jobs.models import Job
from server.shoes.models import Shoe
from server.stock.models import Scrap

# By these a shoe is the same one.
FIGURES = (
    *("name", "material", "trade_size", "deduct", "gain", "front", "heel", "references", "handle_up", "machine"),
    *("dial_factor", "dial_constant"),
)
LONGEST_NAME = 80


@dataclass
class Fitting:
    """What becomes of rows that meet others, each by its number in the archive.

    `members`: people who are here; `own_shoes`: shoes that the crew has just so; `shoe_names`: shoes that are called
    otherwise here; `own_scraps`: pieces that lie on the crew's rack, or lay there, by the same tag since the same
    moment; `tags`: tags that are given to other pieces here, and what they become. `is_bare`: nothing is here yet, so
    that the crew's settings and its history come along.
    """

    names: list[str] = field(default_factory=list)
    members: dict[int, User] = field(default_factory=dict)
    own_shoes: dict[int, Shoe] = field(default_factory=dict)
    shoe_names: dict[str, str] = field(default_factory=dict)
    own_scraps: dict[int, Scrap] = field(default_factory=dict)
    tags: dict[str, str] = field(default_factory=dict)
    last_tag: int = 0
    is_bare: bool = False

    @classmethod
    def of(cls, crew: Crew, archive: ArchiveReader) -> "Fitting":
        """Look an archive over for a crew; rows were found to be whole before."""
        found = cls(last_tag=crew.last_tag)
        found.is_bare = not (
            Job.objects.filter(crew=crew).exists()
            or Shoe.objects.filter(crew=crew).exists()
            or Scrap.objects.filter(crew=crew).exists()
        )
        found._people(crew, archive)
        found._shoes(crew, archive)
        found._scraps(crew, archive)
        return found

    def _people(self, crew: Crew, archive: ArchiveReader) -> None:
        here = Membership.objects.filter(crew=crew).select_related("user")
        by_name: dict[str, list[User]] = {}
        for place in here:
            by_name.setdefault(name_of(place.user), []).append(place.user)
        for number, (_, row) in enumerate(archive.lines(PEOPLE), 1):
            name = str(row.get("name", ""))[:150]
            self.names.append(name)
            # Of two of a name nobody knows which is meant.
            if len(same := by_name.get(name, [])) == 1:
                self.members[number] = same[0]

    def _shoes(self, crew: Crew, archive: ArchiveReader) -> None:
        here = {shoe.name: shoe for shoe in Shoe.objects.filter(crew=crew, live=True)}
        taken = set(here)
        for number, (_, row) in enumerate(archive.lines(BY_MODEL[Shoe].path), 1):
            if not row.get("live"):
                continue
            name = str(row["name"])
            if name in here and all(getattr(here[name], key) == row.get(key) for key in FIGURES):
                self.own_shoes[number] = here[name]
            elif name in taken:
                self.shoe_names[name] = new = _other_name(name, taken)
                taken.add(new)
            else:
                taken.add(name)

    def _scraps(self, crew: Crew, archive: ArchiveReader) -> None:
        here = {scrap.tag: scrap for scrap in Scrap.objects.filter(crew=crew)}
        promised = Bar.objects.filter(crew=crew, live=True).exclude(offcut_tag="").values_list("offcut_tag", flat=True)
        taken = {*here, *promised}
        wanted = list[str]()
        for number, (_, row) in enumerate(archive.lines(BY_MODEL[Scrap].path), 1):
            same = here.get(str(row["tag"]))
            if same and row.get("taken_at") is None and same.since == parse_datetime(str(row["since"])):
                self.own_scraps[number] = same
            else:
                wanted.append(str(row["tag"]))
        bars = (row for _, row in archive.lines(BY_MODEL[Bar].path))
        wanted += [str(row["offcut_tag"]) for row in bars if row.get("offcut_tag") and not row.get("offcut")]
        for tag in wanted:
            self.last_tag = max(self.last_tag, _figure(tag))
        for tag in wanted:
            if tag in taken and tag not in self.tags:
                self.last_tag += 1
                self.tags[tag] = f"S{self.last_tag}"

    def shoe_in(self, document: Any) -> Any:
        """A document, or what is bent otherwise than it says, with its shoe called as it is called here."""
        if new := self.shoe_names.get(shoe_named(document)):
            return {**document, "shoe": {**document["shoe"], "name": new}}
        return document


def _other_name(name: str, taken: set[str]) -> str:
    numbered = (f"{name[: LONGEST_NAME - 4]} {number}" for number in count(2))
    return next(one for one in numbered if one not in taken)


def _figure(tag: str) -> int:
    """The number in a tag of ours."""
    return int(tag[1:]) if tag[:1] == "S" and tag[1:].isascii() and tag[1:].isdigit() and len(tag) <= 9 else 0
