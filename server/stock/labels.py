"""The simulated tag printer: what a label printer on the bench would print, kept as labels that can be looked at."""

from xml.sax.saxutils import escape

from server.accounts.models import User
from server.accounts.permissions import Right, require
from server.stock.models import Label

WIDTH, HEIGHT, MOST_LINES, MOST_LETTERS = 50, 25, 4, 40
KEPT = 200
# Margin and sizes in mm; a letter of most fonts is no wider than so much of its size.
EDGE, LARGE, USUAL, LETTER = 3, 7.0, 4.0, 0.62


def print_labels(user: User, labels: list[list[str]]) -> list[Label]:
    """Print labels; the oldest fall out of the printer's memory."""
    crew = require(user, Right.WORK)
    printed = Label.objects.bulk_create([Label(crew=crew, lines=lines, by=user) for lines in labels])
    old = list(Label.objects.for_user(user).values_list("pk", flat=True)[KEPT:])
    Label.objects.filter(pk__in=old).delete()
    return printed


def as_svg(label: Label) -> str:
    """A label as a file for a printer: 50 × 25 mm, the first line large; a long line is smaller, so that it fits."""
    texts = [
        f'<text x="{EDGE}" y="{8 + 4.7 * at:g}" font-size="{_size(line, at == 0):g}">{escape(line)}</text>'
        for at, line in enumerate(label.lines)
    ]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{WIDTH}mm" height="{HEIGHT}mm" '
        f'viewBox="0 0 {WIDTH} {HEIGHT}" font-family="sans-serif">'
        f'<rect width="{WIDTH}" height="{HEIGHT}" rx="2" fill="#fff" stroke="#000" stroke-width="0.3"/>'
        f"{''.join(texts)}</svg>\n"
    )


def _size(line: str, is_first: bool) -> float:
    fitting = (WIDTH - 2 * EDGE) / (LETTER * max(1, len(line)))
    return round(min(LARGE if is_first else USUAL, fitting), 2)
