"""How much an SVG file draws, before it is drawn: a few lines that use each other may be millions
of shapes."""

from xml.etree.ElementTree import Element, ParseError, fromstring

MOST_BYTES = 16 * 1024**2
MOST_ELEMENTS = 50_000  # that are drawn, each as often as it is used
_HREFS = ("href", "{http://www.w3.org/1999/xlink}href")


def svg_root(content: bytes) -> Element:
    """The tree of an SVG file. ValueError, saying why, if it is none, or is not drawn: it is too
    large, has entities of its own, or its parts use each other too often."""
    if len(content) > MOST_BYTES:
        raise ValueError(f"it has more than {MOST_BYTES // 1024**2} MB")
    if b"\0" in content:
        raise ValueError("it is not UTF-8 text")
    content = _without_doctype(content)
    if b"<!ENTITY" in content or b"<!DOCTYPE" in content:
        raise ValueError("it has a document type with entities of its own, which is not read")
    try:
        root = fromstring(content)
    except (ParseError, ValueError) as error:
        raise ValueError(f"it cannot be read as an SVG: {error}") from None
    if _drawn(root) > MOST_ELEMENTS:
        told = f"it draws more than {MOST_ELEMENTS:,} elements, as its parts use each other"
        raise ValueError(told)
    return root


def named_in(root: Element) -> dict[str | None, Element]:
    """The elements of a file that have an id."""
    return {each.get("id"): each for each in root.iter() if each.get("id")}


def used_by(element: Element, named: dict[str | None, Element]) -> list[Element]:
    """What a `use` stands for; nothing for any other element."""
    if element.tag.rpartition("}")[2] != "use":
        return []
    hrefs = [element.get(name, "") for name in _HREFS]
    return [named[href[1:]] for href in hrefs if href.startswith("#") and href[1:] in named][:1]


def _without_doctype(content: bytes) -> bytes:
    """Without the plain document type that many programs write."""
    start = content.find(b"<!DOCTYPE")
    end = content.find(b">", start)
    if start < 0 or end < 0 or b"[" in content[start:end]:
        return content
    return content[:start] + content[end + 1 :]


def _drawn(root: Element) -> float:
    """How many elements are drawn; without end where they use themselves. Each is counted once,
    however often it is used."""
    named = named_in(root)
    counts: dict[Element, float] = {}
    waiting: list[tuple[Element, bool]] = [(root, False)]
    within: set[Element] = set()
    while waiting:
        element, is_done = waiting.pop()
        needed = [*element, *used_by(element, named)]
        if is_done:
            within.discard(element)
            counts[element] = 1 + sum(counts.get(each, float("inf")) for each in needed)
        elif element not in counts and element not in within:
            within.add(element)
            waiting.append((element, True))
            waiting += [(each, False) for each in needed if each not in counts]
    return counts[root]
