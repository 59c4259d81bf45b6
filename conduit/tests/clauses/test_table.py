"""The clause table: every kind, every field of it and every word, each once."""

from typing import get_args
from unittest import TestCase

from conduit.catalogue import LANGUAGES, clause_words
from conduit.clauses import IN_RACK, KINDS, field_of, slots_of
from conduit.document.steps import Obstacle, RunStep, SweptAround

WORDS = clause_words("en")
NESTED = {"over": Obstacle, "around": SweptAround}
# Of every kind, told by its line or by the clause of the rack.
COMMON = {"kind", "muted", "rack"}


def fields_of(model):
    for name in model.model_fields:
        if name in NESTED:
            yield from (f"{name}.{inner}" for inner in NESTED[name].model_fields)
        elif name not in COMMON:
            yield name


def keys_in(condition):
    own = [condition.key] if condition.key else []
    return [*own, *(key for one in condition.others for key in keys_in(one))]


def sentence_of(kind):
    said = [*kind.clauses, *(clause for ways in kind.ways.values() for way in ways for clause in way.clauses)]
    return [clause for clause in said if clause.says]


class TheTable(TestCase):
    def each(self):
        for kind in KINDS:
            with self.subTest(kind.name):
                yield kind, {ask.key for ask in kind.asks}

    def test_has_every_kind_and_asks_for_each_of_its_fields_once(self):
        self.assertEqual({kind.model for kind in KINDS}, set(get_args(RunStep)))
        for kind, asked in self.each():
            self.assertEqual(asked, set(fields_of(kind.model)))
            self.assertEqual(len(asked), len(kind.asks))

    def test_a_note_says_each_field(self):
        for kind, asked in self.each():
            notes = [note for clause in kind.clauses for note in (clause.note, *clause.also)]
            said = {slot for note in notes for slot in slots_of(note)}
            said |= {key for one in kind.clauses for key in one.sets}
            self.assertEqual(asked - said, set())
            self.assertTrue(said <= asked)

    def test_a_sentence_shows_each_field_or_its_ways_do(self):
        # The shape is the way itself; the material of what a sweep goes around is that of the run.
        apart = {"over.shape", "around.material"}
        for kind, asked in self.each():
            shown = {slot for clause in sentence_of(kind) for slot in slots_of(WORDS[f"says.{clause.says}"])}
            shown = {slot for slot in shown if not slot.startswith("term.")}
            self.assertEqual(shown - set(kind.ways), asked - apart)
            self.assertEqual(shown & set(kind.ways), set(kind.ways))

    def test_conditions_and_ways_ask_for_fields_that_there_are(self):
        for kind, asked in self.each():
            conditions = [one.when for one in (*kind.clauses, *(way for ways in kind.ways.values() for way in ways))]
            for key in {key for when in conditions for key in keys_in(when)} - {"over", "around"}:
                self.assertIn(key, asked)
            for clause in sentence_of(kind):
                self.assertTrue(set(clause.adds) <= asked)
            self.assertTrue(not kind.told_by or kind.told_by in asked)

    def test_the_tape_of_each_length_lies_in_the_drawing(self):
        # How far a thing reaches lies out of it; a window is measured as what it is the window of.
        undrawn = {"over.reach", "at_least", "at_most"}
        for kind, asked in self.each():
            lengths = {key for key in asked - undrawn if field_of(kind, key).unit in ("length", "signed")}
            ends = {f"at.{end}" for key in asked & {"to", "ref"} for end in field_of(kind, key).choices}
            self.assertEqual(set(kind.tapes), lengths - {"at"} | ends if ends else lengths)
            for key, (x, y, end_x, end_y) in kind.tapes.items():
                self.assertTrue(0 <= x <= end_x <= 34 and 0 <= end_y <= 22 and 0 <= y <= 22, key)
                self.assertGreater(abs(end_x - x) + abs(end_y - y), 1, key)

    def test_the_racks_clause_says_every_way(self):
        way = KINDS[0].model.model_fields["rack"].annotation.__args__[0]
        self.assertEqual(set(slots_of(IN_RACK.note)), {f"rack.{name}" for name in way.model_fields})


class TheWords(TestCase):
    def wanted(self):
        for kind in KINDS:
            yield from (f"kind.{kind.name}{part}" for part in ("", ".called", ".met", ".within"))
            for clause in sentence_of(kind):
                yield f"says.{clause.says}"
                yield from (f"says.{clause.says}.{part}" for part in ("add", "remove") if clause.adds)
            for name, ways in kind.ways.items():
                yield f"ways.{name}"
                yield from (f"way.{name}.{way.key}" for way in ways)
            for ask in kind.asks:
                yield f"field.{ask.key}"
                field = field_of(kind, ask.key)
                if field.unit == "choice" and ask.key != "over.shape":
                    yield from (f"choice.{ask.key}.{choice}" for choice in field.choices)
        terms = {slot for says in WORDS.values() for slot in slots_of(says) if slot.startswith("term.")}
        yield from (f"{term}{part}" for term in terms for part in ("", ".meaning"))

    def test_each_that_is_wanted_is_there(self):
        self.assertEqual({key for key in self.wanted() if key not in WORDS}, set())

    def test_the_tape_is_told_what_to_do_for_every_length(self):
        for kind in KINDS:
            for ask in kind.asks:
                if field_of(kind, ask.key).unit in ("length", "signed"):
                    told = {f"tape.{ask.key}", f"tape.{kind.name}.{ask.key}"} & WORDS.keys()
                    self.assertTrue(told, f"{kind.name} {ask.key}")

    def test_none_is_spare(self):
        used = {*self.wanted()}
        kinds, fields = {kind.name for kind in KINDS}, {ask.key for kind in KINDS for ask in kind.asks}
        for key in WORDS:
            group, _, rest = key.partition(".")
            by_kind = rest.partition(".")[2] if rest.partition(".")[0] in kinds else rest
            spoken = group == "direction" or "rack" in rest or (group in ("tape", "ask") and by_kind in fields)
            spoken = spoken or group == "measure" or key == "kind.left_out.within"
            self.assertTrue(spoken or key.removesuffix(".hint") in used, key)

    def test_each_language_has_the_same_words_with_the_same_slots(self):
        for language in LANGUAGES:
            own = clause_words(language)
            self.assertEqual(own.keys() - WORDS.keys(), set())
            for key, says in own.items():
                self.assertEqual(sorted(slots_of(says)), sorted(slots_of(WORDS[key])), f"{language} {key}")
