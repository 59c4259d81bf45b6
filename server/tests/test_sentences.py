from pathlib import Path
from unittest import TestCase

from conduit.catalogue import ENGLISH
from conduit.catalogue.message import templates
from conduit.catalogue.words import sentences_of, texts_in
from conduit.tests.test_catalogue import never_said, said_wrong
from server import sentences

SERVER = Path(sentences.__file__).parents[1]


class Sentences(TestCase):
    def test_each_is_said_with_its_figures_and_none_for_nothing(self):
        self.assertEqual(list(said_wrong(templates(ENGLISH), SERVER)), [])
        self.assertEqual(never_said(sentences_of(texts_in("server.sentences", ENGLISH)), SERVER), [])
