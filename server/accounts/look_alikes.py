"""Names that could be read as other ones, as with a Cyrillic “а” for a Latin one (Unicode Technical Standard 39)."""

from confusable_homoglyphs import categories, confusables

LATIN = "LATIN"
# Alphabets that are written together.
TOGETHER = (
    {LATIN, "HAN", "HIRAGANA", "KATAKANA"},
    {LATIN, "HAN", "HANGUL"},
    {LATIN, "HAN", "BOPOMOFO"},
)


def looks_like_another(name: str) -> bool:
    """Whether it mixes alphabets, or is written in another one with letters that all look like Latin ones."""
    letters = [letter for letter in name if letter.isalpha()]
    alphabets = {categories.alias(letter) for letter in letters} - {"COMMON", "INHERITED"}
    if len(alphabets) > 1:
        return not any(alphabets <= those for those in TOGETHER)
    return bool(letters) and LATIN not in alphabets and all(map(_looks_latin, letters))


def _looks_latin(letter: str) -> bool:
    found = confusables.is_confusable(letter, preferred_aliases=[]) or []
    return any(
        categories.alias(other["c"]) == LATIN for one in found for other in one["homoglyphs"] if len(other["c"]) == 1
    )
