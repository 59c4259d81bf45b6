"""PDF, by WeasyPrint from HTML (Jinja): run sheets, bench cards, cut lists, floors, what to bring, a whole job.

True fractions, by the font's own; the same content gives the same file. Letter and A4.
"""

import os
from collections.abc import Iterable, Sequence
from functools import cache
from pathlib import Path
from typing import Any

import jinja2
import segno
from markupsafe import Markup
from weasyprint import CSS, HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

from conduit.catalogue import ENGLISH, Language, Message, has_message, speaking, told
from conduit.units import INCH_TAPE, format_angle
from formats.paper import PaperJob, PaperRun
from formats.pictures import strip_of_bar, strip_of_stick, views_of
from formats.sources import Size
from formats.words import message

# What makes fonts smaller for a file dates them; the same content is to give the same file.
os.environ.setdefault("SOURCE_DATE_EPOCH", "0")
_HERE = Path(__file__).parent
# Letters with fractions of their own, as the page has them.
FONT = _HERE / "fonts" / "inter-latin-wght-normal.woff2"


class NoOutside(URLFetcher):  # type: ignore[misc]
    """Gives the font, and nothing else: a page fetches nothing."""

    def fetch(self, url: str, headers: Any = None) -> Any:
        """The font's file. Raises ValueError for all else."""
        if url != FONT.as_uri():
            raise ValueError(f"a page asks for {url}")
        return super().fetch(url, headers)


def run_sheet(run: PaperRun, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """A run: picture, sentences, marks, order, arithmetic both ways."""
    return _printed(run.name, ["run_sheet.html"], size, language, run=run)


def bench_cards(run: PaperRun, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """A sheet a stick, with the code that opens it where there is a server."""
    return _written(run.name, _cards(run, language), size, language)


def floor_sheet(run: PaperRun, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """A rack on the floor."""
    return _printed(run.name, ["floor.html"], size, language, run=run)


def cut_sheet(job: PaperJob, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """A job's cut list."""
    return _printed(job.name, ["cuts.html"], size, language, job=job)


def bring_sheet(job: PaperJob, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """What to bring for a job."""
    return _printed(job.name, ["bring.html"], size, language, job=job)


def whole_job(job: PaperJob, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """Its space, what to bring, its cut list, and each run's sheet, floor and cards, in one file."""
    pages = [_page(name, language, job=job) for name in ("job_space.html", "bring.html", "cuts.html")]
    for run in job.runs:
        pages.append(_page("run_sheet.html", language, run=run))
        if run.floor:
            pages.append(_page("floor.html", language, run=run))
        pages += _cards(run, language)
    return _written(job.name, pages, size, language)


def run_sheets(job: PaperJob, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """The sheets of all runs of a job."""
    pages = [_page("run_sheet.html", language, run=run) for run in job.runs]
    return _written(job.name, pages, size, language)


def cards_of_job(job: PaperJob, size: Size = "letter", language: Language = ENGLISH) -> bytes:
    """The bench cards of all runs of a job."""
    return _written(job.name, [page for run in job.runs for page in _cards(run, language)], size, language)


def _cards(run: PaperRun, language: Language) -> list[str]:
    return [_page("bench_card.html", language, run=run, one=one) for one in run.sticks]


def _printed(title: str, names: Sequence[str], size: Size, language: Language, **content: Any) -> bytes:
    return _written(title, [_page(name, language, **content) for name in names], size, language)


def _page(name: str, language: Language, **content: Any) -> str:
    with speaking(language):
        return _templates().get_template(name).render(**content)


def _written(title: str, pages: Iterable[str], size: Size, language: Language) -> bytes:
    with speaking(language):
        page = _templates().get_template("document.html").render(title=title, pages=pages, language=language)
        fonts = FontConfiguration()
        html = HTML(string=page, url_fetcher=NoOutside())
        style = CSS(string=_style(size), font_config=fonts, url_fetcher=NoOutside())
    return bytes(html.write_pdf(stylesheets=[style], font_config=fonts, pdf_identifier=b"crelda", pdf_tags=True))


def _style(size: Size) -> str:
    return _templates().get_template("page.css").render(font=Markup(FONT.as_uri()), paper=size)


@cache
def _templates() -> jinja2.Environment:
    found = jinja2.Environment(
        loader=jinja2.FileSystemLoader(_HERE / "templates"),
        autoescape=True,
        trim_blocks=True,
        lstrip_blocks=True,
        undefined=jinja2.StrictUndefined,
    )
    found.filters["told"] = _told
    found.globals.update(say=_say, reference=_reference, angle=format_angle, code=_code, tape=INCH_TAPE.shows)
    found.globals.update(views_of=views_of, strip_of_stick=strip_of_stick, strip_of_bar=strip_of_bar)
    return found


def _say(key: str, **figures: Any) -> str:
    return told(message(key, **figures))


def _told(text: str) -> str:
    return told(text) if isinstance(text, Message) else text


def _reference(name: str) -> str:
    """What a reference on the shoe is called; one of its owner's own as they named it."""
    key = f"reference.{name}"
    return told(message(key)) if has_message(key) else name


def _code(address: str) -> Markup:
    """A code that opens this address."""
    return Markup(segno.make(address, error="m").svg_inline(scale=3, border=1))
