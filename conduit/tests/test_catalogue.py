"""The catalogue: every message that is made has its sentence, every sentence is said, and languages name the same."""

import ast
import copy
import pickle
import re
from string import Formatter
from unittest import TestCase

from conduit.catalogue import ENGLISH, LANGUAGES, Message, joined, message, speaking
from conduit.catalogue.message import clause_texts, is_within, templates
from conduit.catalogue.words import sentences_of, texts_in
from conduit.findings import Code, Finding, found
from conduit.tests.test_rooms import CORE

WORDS = "conduit.catalogue.words"


def within(language):
    """What of the clause table's words is told within other sentences."""
    return {key: text for key, text in clause_texts(language).items() if is_within(key)}


# As the core has them, without what stands above it.
SENTENCES = sentences_of({**texts_in(WORDS, ENGLISH, but="clauses"), **within(ENGLISH)})


def figures_of(template):
    forms = (template,) if isinstance(template, str) else template.values()
    return {name for form in forms for _, name, _, _ in Formatter().parse(form) if name}


def sources(root=CORE):
    for path in sorted(root.rglob("*.py")):
        if not {"tests", "catalogue", "sentences", "migrations"} & set(path.parts):
            yield path.name, list(ast.walk(ast.parse(path.read_text())))


def texts(nodes):
    """The strings among nodes, and what stands before the first figure of those that have one."""
    within = {id(part) for node in nodes if isinstance(node, ast.JoinedStr) for part in node.values}
    whole = {node.value for node in nodes if isinstance(node, ast.Constant) and id(node) not in within}
    begun = {node.values[0].value for node in nodes if isinstance(node, ast.JoinedStr) and has_begun(node)}
    return whole, begun


def is_key(text):
    return isinstance(text, str) and (text in SENTENCES or re.fullmatch(r"[a-z_]+\.[a-z_.]+", text))


def has_begun(node):
    return isinstance(node.values[0], ast.Constant) and "." in node.values[0].value


def said_wrong(sentences, root=CORE):
    """The calls that name no message, or lack one of its figures."""
    for name, nodes in sources(root):
        for node in nodes:
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "message":
                named = {one.arg for one in node.keywords}
                for key in filter(is_key, texts(list(ast.walk(node.args[0])))[0]):
                    wanted = figures_of(sentences.get(key, "{no_such_message}"))
                    if wanted - named and None not in named:
                        yield f"{name}:{node.lineno}: {key} wants {sorted(wanted - named)}"


def never_said(keys, root=CORE):
    told = [texts(nodes) for _, nodes in sources(root)]
    whole, begun = set().union(*(one for one, _ in told)), tuple(set().union(*(one for _, one in told)))
    return [key for key in keys if key not in whole and not key.startswith(begun)]


class TheCatalogue(TestCase):
    def test_what_is_said_by_its_key_has_a_sentence_and_all_its_figures(self):
        self.assertEqual(list(said_wrong(SENTENCES)), [])

    def test_every_finding_has_its_code_and_every_code_a_finding(self):
        codes = {key.split(".")[1] for key in SENTENCES if key.startswith("finding.")}
        self.assertEqual(codes, {code.value for code in Code})

    def test_every_sentence_is_said_somewhere(self):
        self.assertEqual(never_said(SENTENCES), [])

    def test_other_languages_say_the_same_with_the_same_figures(self):
        for language in set(LANGUAGES) - {ENGLISH}:
            for key, template in templates(language).items():
                with self.subTest(language=language, key=key):
                    own = templates(ENGLISH)[key]
                    self.assertEqual(isinstance(template, str), isinstance(own, str))
                    self.assertEqual(figures_of(template), figures_of(own))


class AMessage(TestCase):
    def setUp(self):
        self.says = message("correct.scrap_over", bend=2, by="4.5")

    def test_is_english_as_a_string_and_told_in_the_language_that_is_set(self):
        finding = found(Code.CLOSURE, "end.measured", off="1/2", parts=joined([message("off.up", length="1/2")], ", "))
        self.assertEqual(self.says, "Scrap it: bend 2 is 4.5° over and cannot be opened by so much.")
        english = finding.model_dump_json()
        with speaking("es"):
            spanish = Finding.model_validate_json(finding.model_dump_json())
        self.assertEqual(finding.model_dump_json(), english)
        self.assertIn("1/2 hacia arriba", spanish.says)
        with speaking("tlh"):
            self.assertEqual(finding.model_dump_json(), english)

    def test_counts(self):
        one, two = (message("count.sticks", count=count) for count in (1, 2))
        self.assertEqual((one, two), ("1 stick", "2 sticks"))

    def test_is_copied_with_its_figures(self):
        for again in (copy.deepcopy(self.says), pickle.loads(pickle.dumps(self.says))):
            self.assertEqual((again, again.told_in("es")), (self.says, self.says.told_in("es")))
        both = joined([self.says, Message("Ann")])
        self.assertEqual(copy.deepcopy(both).told_in("es"), both.told_in("es"))

    def test_what_it_lacks_it_says_at_once(self):
        with self.assertRaises(KeyError):
            message("correct.scrap_over", bend=2)
