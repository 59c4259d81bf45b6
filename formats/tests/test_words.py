"""What is said on paper is said in every language, and every sentence of it is used."""

import json
import re
from pathlib import Path
from unittest import TestCase

HERE = Path(__file__).parents[1]
# Who adds what a server keeps to what is on paper.
ADDS = HERE.parent / "server" / "exchange" / "gathering.py"
# What is called by a code of the core's.
BY_CODE = ("paper.where", "paper.view")


class Words(TestCase):
    def test_each_language_says_all_with_the_same_figures_and_nothing_is_left_over(self):
        used = ADDS.read_text() + "".join(
            path.read_text() for kind in ("*.py", "templates/*.html", "templates/*.css") for path in HERE.glob(kind)
        )
        for path in (HERE / "words" / "en").glob("*.json"):
            english, spanish = (
                json.loads((HERE / "words" / language / path.name).read_text()) for language in ("en", "es")
            )
            self.assertEqual(list(english), list(spanish))
            for key, says in english.items():
                self.assertEqual(*(set(re.findall(r"{{(\w+)}}", text)) for text in (says, spanish[key])), key)
                stem, last = key.rsplit(".", 1)
                self.assertTrue(f'"{key}"' in used or stem in BY_CODE or f'"{last}"' in used, key)
