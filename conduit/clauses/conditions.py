"""When a clause applies to a step: small conditions on its fields, told to the front end as they are."""

from dataclasses import dataclass
from typing import Any, Literal, Protocol

Test = Literal["given", "filled", "is", "not", "all"]


class Fields(Protocol):
    """A step as written, with the defaults of its kind."""

    def written(self, key: str) -> Any:
        """What is written in a field, by its dotted key; None where nothing is."""

    def value(self, key: str) -> Any:
        """The same, or the default of the field."""


@dataclass(frozen=True)
class Condition:
    """A test of a field by its dotted key, or of other conditions."""

    test: Test
    key: str = ""
    wanted: str | int = ""
    others: tuple["Condition", ...] = ()

    def holds(self, step: Fields) -> bool:
        """Whether it holds for a step."""
        match self.test:
            case "given":
                return step.written(self.key) is not None
            case "filled":
                return str("" if step.written(self.key) is None else step.written(self.key)).strip() != ""
            case "is":
                value = step.value(self.key)
                return bool(value == self.wanted or value == str(self.wanted))
            case "not":
                return not self.others[0].holds(step)
            case "all":
                return all(one.holds(step) for one in self.others)

    def exported(self) -> dict[str, Any]:
        """The condition for the front end: its test by name, and what is tested."""
        if self.test in ("given", "filled"):
            return {self.test: self.key}
        if self.test == "is":
            return {self.test: [self.key, self.wanted]}
        others = [one.exported() for one in self.others]
        return {self.test: others if self.test == "all" else others[0]}


def given(key: str) -> Condition:
    """The field is there, also where its figure is still to be measured."""
    return Condition("given", key)


def filled(key: str) -> Condition:
    """Something is written in the field."""
    return Condition("filled", key)


def has(key: str, wanted: str | int) -> Condition:
    """The field has this value, or it is its default and nothing is written."""
    return Condition("is", key, wanted)


def no(other: Condition) -> Condition:
    """The other does not hold."""
    return Condition("not", others=(other,))


def both(*others: Condition) -> Condition:
    """Every one of them holds; of none, always."""
    return Condition("all", others=others)


def either(one: Condition, other: Condition) -> Condition:
    """One of them at least: not neither."""
    return no(both(no(one), no(other)))


ALWAYS = both()
