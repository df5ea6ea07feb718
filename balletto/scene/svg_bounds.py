"""How much an SVG file draws, before it is drawn: a few lines that use each other may be millions
of shapes."""

from xml.etree.ElementTree import Element, ParseError, fromstring

MOST_ELEMENTS = 50_000  # that are drawn, each as often as it is used
_HREFS = ("href", "{http://www.w3.org/1999/xlink}href")


def svg_fault(content: bytes) -> str:
    """Why an SVG file is not drawn; empty if it can be."""
    if b"<!ENTITY" in content or b"<!DOCTYPE" in content[:4096]:
        content = _without_doctype(content)
        if b"<!ENTITY" in content or b"<!DOCTYPE" in content:
            return "it has a document type with entities of its own, which is not read"
    try:
        root = fromstring(content)
    except (ParseError, ValueError) as error:
        return f"it cannot be read as an SVG: {error}"
    if _drawn(root) > MOST_ELEMENTS:
        return f"it draws more than {MOST_ELEMENTS:,} elements, as its parts use each other"
    return ""


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
    named = {each.get("id"): each for each in root.iter() if each.get("id")}
    counts: dict[Element, float] = {}
    waiting: list[tuple[Element, bool]] = [(root, False)]
    within: set[Element] = set()
    while waiting:
        element, is_done = waiting.pop()
        needed = [*element, *_used(element, named)]
        if is_done:
            within.discard(element)
            counts[element] = 1 + sum(counts.get(each, float("inf")) for each in needed)
        elif element not in counts and element not in within:
            within.add(element)
            waiting.append((element, True))
            waiting += [(each, False) for each in needed if each not in counts]
    return counts[root]


def _used(element: Element, named: dict[str | None, Element]) -> list[Element]:
    if element.tag.rpartition("}")[2] != "use":
        return []
    hrefs = [element.get(name, "") for name in _HREFS]
    return [named[href[1:]] for href in hrefs if href.startswith("#") and href[1:] in named]
