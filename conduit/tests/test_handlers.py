"""What a kind of step does is registered by its kind: what each must have is there, and nothing asks in chains."""

import ast
from typing import get_args
from unittest import TestCase

from conduit.document.steps import AnyStep, RunStep, StepLeftOut
from conduit.layout.step_geometry import place_step
from conduit.marking.card import on_card
from conduit.racks.alongside import in_rack
from conduit.tests.test_rooms import SOURCES, name_of

KINDS = get_args(RunStep)
# Without these a kind of step cannot be laid out, told by the card, or run in a rack: none is taken for granted.
NEEDED = (place_step, on_card, in_rack)
NAMES = {kind.__name__ for kind in get_args(AnyStep)} - {StepLeftOut.__name__}


def kinds_asked(function):
    """The kinds of steps that a function asks for by `isinstance`, by `match` or by their type."""
    for node in ast.walk(function):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "isinstance":
            yield from (one.id for one in ast.walk(node.args[1]) if isinstance(one, ast.Name) and one.id in NAMES)
        elif isinstance(node, ast.MatchClass) and isinstance(node.cls, ast.Name) and node.cls.id in NAMES:
            yield node.cls.id


class Handlers(TestCase):
    def test_every_kind_has_what_it_needs(self):
        for registry in NEEDED:
            for kind in (*KINDS, StepLeftOut):
                with self.subTest(registry=registry.__name__, kind=kind.__name__):
                    self.assertIsNot(registry.dispatch(kind), registry.dispatch(object))

    def test_none_is_asked_in_a_chain(self):
        chains = {}
        for path in SOURCES:
            for node in ast.walk(ast.parse(path.read_text())):
                if isinstance(node, ast.FunctionDef) and len(asked := set(kinds_asked(node))) > 1:
                    chains[f"{name_of(path)}.{node.name}"] = sorted(asked)
        self.assertEqual(chains, {})

    def test_a_chain_is_seen(self):
        code = "def f(step):\n if isinstance(step, BendStep | KickStep): pass\n match step:\n  case SweepStep(): pass"
        self.assertEqual(set(kinds_asked(ast.parse(code).body[0])), {"BendStep", "KickStep", "SweepStep"})
