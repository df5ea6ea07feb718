"""The style sheet with which pages load the shipped fonts, from the files that the core uses."""

import hashlib
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path

from django.contrib.auth.decorators import login_not_required
from django.http import HttpRequest, HttpResponse
from django.templatetags.static import static
from django.views.decorators.gzip import gzip_page

from balletto.lettering.faces import axes_of, covered_by
from balletto.lettering.families import FAMILIES, FOLDER, Family


@login_not_required
@gzip_page
def font_rules(request: HttpRequest) -> HttpResponse:
    """One @font-face for each file of each family."""
    response = HttpResponse(_rules(), content_type="text/css")
    response["Cache-Control"] = "public, max-age=600"
    return response


def css_name(family: str) -> str:
    """What style sheets call a family: the shipped ones by their names; a person's own by a mark of
    theirs, which whatever stands in a name cannot break."""
    if family in FAMILIES:
        return family
    return f"own-{hashlib.sha256(family.encode()).hexdigest()[:12]}"


@login_not_required
@gzip_page
def slice_rules(request: HttpRequest) -> HttpResponse:
    """The same for families that come in slices, which pages load once all else is there: there are
    hundreds, and few texts have letters of them."""
    response = HttpResponse(_rules(are_sliced=True), content_type="text/css")
    response["Cache-Control"] = "public, max-age=600"
    return response


@lru_cache(maxsize=2)
def _rules(are_sliced: bool = False) -> str:
    wanted = (family for family in FAMILIES.values() if family.is_sliced == are_sliced)
    return "\n".join(_family_rules(family) for family in wanted)


def _family_rules(family: Family) -> str:
    ranges = {axis.tag: f"{axis.low:g} {axis.high:g}" for axis in axes_of(family)}
    weight = f"font-weight: {ranges['wght']};" if "wght" in ranges else ""
    stretch = ""
    if "wdth" in ranges:
        stretch = "font-stretch: {}% {}%;".format(*ranges["wdth"].split())
    return "\n".join(
        f'@font-face {{ font-family: "{family.name}"; {weight} {stretch} font-display: block; '
        f'src: url("{static(f"fonts/{path.relative_to(FOLDER)}")}") format("woff2"); '
        f"unicode-range: {_unicode_range(own)}; }}"
        for path, own in _shares(family)
        if own
    )


def _shares(family: Family) -> Iterator[tuple[Path, frozenset[int]]]:
    """Each file with the code points that are taken from it. Most files have a space, an "A" or
    more of the others' too: taken from the first, words are set in one piece, and a file is only
    asked for if something in it is needed."""
    known: frozenset[int] = frozenset()
    for path in family.files:
        yield path, covered_by(path) - known
        known |= covered_by(path)


def _unicode_range(codepoints: frozenset[int]) -> str:
    """Code points as CSS ranges: "U+20-7E, U+A0"."""
    ranges: list[list[int]] = []
    for point in sorted(codepoints):
        if ranges and ranges[-1][1] == point - 1:
            ranges[-1][1] = point
        else:
            ranges.append([point, point])
    return ", ".join(f"U+{a:X}" if a == b else f"U+{a:X}-{b:X}" for a, b in ranges)
