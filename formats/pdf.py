"""PDF, by WeasyPrint from HTML (Jinja): run sheets, bench cards, cut lists, floors, what to bring, a whole job.

True fractions, by the font's own; the same content gives the same file. Letter and A4.
"""

import os
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Any

import jinja2
import segno
from markupsafe import Markup
from weasyprint import CSS, HTML, Document
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

from conduit.catalogue import Message, has_message, speaking, told
from conduit.units import INCH_TAPE, format_angle
from formats.paper import PaperJob, PaperRun
from formats.pictures import strip_of_bar, strip_of_stick, views_of
from formats.sources import Heard, Size, Wanted, nobody
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


# The pages of one thing, as HTML: numbered by themselves, so that they can be handed out alone.
Chapter = list[str]


def run_sheet(run: PaperRun, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """A run: picture, sentences, marks, order, arithmetic both ways."""
    return _written(run.name, [[_page("run_sheet.html", wanted, run=run)]], wanted, heard)


def bench_cards(run: PaperRun, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """A sheet a stick, with the code that opens it where there is a server."""
    return _written(run.name, [_cards(run, wanted)], wanted, heard)


def floor_sheet(run: PaperRun, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """A rack on the floor."""
    return _written(run.name, [[_page("floor.html", wanted, run=run)]], wanted, heard)


def cut_sheet(job: PaperJob, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """A job's cut list."""
    return _written(job.name, [[_page("cuts.html", wanted, job=job)]], wanted, heard)


def bring_sheet(job: PaperJob, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """What to bring for a job."""
    return _written(job.name, [[_page("bring.html", wanted, job=job)]], wanted, heard)


def whole_job(job: PaperJob, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """Its space, what to bring, its cut list, and each run's sheet, floor and cards, in one file."""
    of_job = [[_page(name, wanted, job=job)] for name in ("job_space.html", "bring.html", "cuts.html")]
    return _written(job.name, [*of_job, *(_all_of(run, wanted) for run in job.runs)], wanted, heard)


def _all_of(run: PaperRun, wanted: Wanted) -> Chapter:
    names = ["run_sheet.html", "floor.html"] if run.floor else ["run_sheet.html"]
    return [*(_page(name, wanted, run=run) for name in names), *_cards(run, wanted)]


def run_sheets(job: PaperJob, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """The sheets of all runs of a job."""
    return _written(job.name, [[_page("run_sheet.html", wanted, run=run)] for run in job.runs], wanted, heard)


def cards_of_job(job: PaperJob, wanted: Wanted, heard: Heard = nobody) -> bytes:
    """The bench cards of all runs of a job."""
    return _written(job.name, [_cards(run, wanted) for run in job.runs], wanted, heard)


def _cards(run: PaperRun, wanted: Wanted) -> Chapter:
    return [_page("bench_card.html", wanted, run=run, one=one) for one in run.sticks]


def _page(name: str, wanted: Wanted, **content: Any) -> str:
    with speaking(wanted.language):
        return _templates().get_template(name).render(**content)


def _written(title: str, chapters: Sequence[Chapter], wanted: Wanted, heard: Heard) -> bytes:
    """Chapter after chapter, in one file; a chapter without a page (a straight run's) is passed over."""
    rendered = list[Document]()
    with speaking(wanted.language):
        fonts = FontConfiguration()
        style = CSS(string=_style(wanted.size), font_config=fonts, url_fetcher=NoOutside())
        for number, pages in enumerate(chapters or [[]]):
            heard(number / len(chapters))
            page = _templates().get_template("document.html")
            html = page.render(title=title, pages=pages, language=wanted.language)
            whole = HTML(string=html, url_fetcher=NoOutside())
            rendered.append(whole.render(stylesheets=[style], font_config=fonts, pdf_tags=True))
    pages = [page for one in rendered for page in one.pages]
    return bytes(rendered[0].copy(pages).write_pdf(pdf_identifier=b"crelda", pdf_tags=True))


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
