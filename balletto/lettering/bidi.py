"""Direction: embedding levels of a paragraph and the visual order of a line (UAX 9)."""

from bidi import algorithm
from fontTools.unicodedata import bidirectional

_RIGHT_TO_LEFT = {"R", "AL", "AN", "RLE", "RLO", "RLI"}


def levels_of(paragraph: str) -> tuple[int, list[int]]:
    """The base level of a paragraph (0 runs to the right, 1 to the left) and that of each point."""
    if not any(bidirectional(point) in _RIGHT_TO_LEFT for point in paragraph):
        return 0, [0] * len(paragraph)
    base = algorithm.get_base_level(paragraph)
    storage = {**algorithm.get_empty_storage(), "base_level": base, "base_dir": "LR"[base]}
    algorithm.get_embedding_levels(paragraph, storage)
    # Rule X9 takes the marks of direction out of the storage; here they keep their levels.
    points = list(storage["chars"])
    algorithm.explicit_embed_and_overrides(storage)
    algorithm.resolve_weak_types(storage)
    algorithm.resolve_neutral_types(storage, False)
    algorithm.resolve_implicit_levels(storage, False)
    return base, [point["level"] for point in points]


def visual_order(levels: list[int]) -> list[int]:
    """Places of a line from left to right (rule L2): runs are reversed, the highest level first."""
    order = list(range(len(levels)))
    for level in range(max(levels, default=0), 0, -1):
        start = 0
        while start < len(order):
            end = start
            while end < len(order) and levels[order[end]] >= level:
                end += 1
            order[start:end] = order[start:end][::-1]
            start = max(end, start + 1)
    return order
