"""The units of a title as staggers and selectors see them: where they are, and in what."""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

import numpy as np

from ..lettering.layout import UNIT_KINDS, Layout, edges_of, unions
from ..scene.document import Scene
from ..scene.layers.title import Title
from ..scene.moving.moves import Move
from .heard import loudness_in
from .spaces.affine import resting_matrices
from .spaces.along import text_path


@dataclass(frozen=True)
class UnitGroup:
    """Larger units: which of them each unit is in, (n,), and their rest centres, (m, 2)."""

    member: np.ndarray
    centers: np.ndarray


def _no_group(by: str) -> None:
    return None


@dataclass(frozen=True)
class Units:
    """The units of one kind.

    centers: (n, 2), their rest centres in title space
    find_group: gives the words or lines that they are in, by kind; None if they are in none
    length, rate: of the scene, in frames and frames a second
    project: from times, (t, 1) or (t, n), and points (n, 2) of title space to the picture,
        (t, n, 2)
    hear: gives how loud a sound of the scene is, as `loudness` does
    """

    centers: np.ndarray
    find_group: Callable[[str], UnitGroup | None] = _no_group
    length: int = 1
    rate: Fraction = Fraction(30)
    project: Callable[[np.ndarray, np.ndarray], np.ndarray] | None = None
    hear: Callable[[str | None, str, np.ndarray, np.ndarray], np.ndarray] | None = None

    def __len__(self) -> int:
        return len(self.centers)

    def in_picture(self, times: np.ndarray) -> np.ndarray:
        """The rest centres in the picture at `times`, (t, 1) or (t, n): (t, n, 2)."""
        if self.project is None:
            return np.broadcast_to(self.centers, (len(times), *self.centers.shape))
        return self.project(times, self.centers)

    def loudness(
        self, sound: str | None, band: str, times: np.ndarray, smooth: np.ndarray
    ) -> np.ndarray:
        """How loud a sound is at times, each the mean over `smooth` frames, in 0..1."""
        if self.hear is None:
            return np.zeros(times.shape)
        return self.hear(sound, band, times, smooth)


Among = tuple[tuple[int, int], ...] | None


@dataclass(frozen=True)
class UnitPart:
    """The units of a kind of a title, or of some of its letters.

    letters: (k,) the characters that are in them; member: (k,) the unit of each
    boxes: (n, 4), centers: (n, 2) of the units; edges: (n, 2) their outermost characters
    """

    letters: np.ndarray
    member: np.ndarray
    boxes: np.ndarray
    centers: np.ndarray
    edges: np.ndarray


def part_of(layout: Layout, kind: str, among: Among = None) -> UnitPart:
    """The units of a kind: all, or with `among` what of them lies in ranges of the text."""
    if among is None:
        letters = np.arange(len(layout.characters))
        member = layout.member[kind]
        return UnitPart(
            letters, member, layout.boxes[kind], layout.centers[kind], layout.edges[kind]
        )
    indices = np.array([character.index for character in layout.characters], dtype=int)
    letters = np.flatnonzero(_within(indices, among))
    _, member = np.unique(layout.member[kind][letters], return_inverse=True)
    boxes = layout.boxes["character"][letters]
    union, edges = unions(boxes, member), edges_of(boxes, member)
    return UnitPart(letters, member, union, (union[:, :2] + union[:, 2:]) / 2, letters[edges])


def _within(indices: np.ndarray, among: Among) -> np.ndarray:
    inside = np.zeros(len(indices), dtype=bool)
    for first, end in among or ():
        inside |= (indices >= first) & (indices < end)
    return inside


def is_of_whole_units(layout: Layout, kind: str, part: UnitPart) -> bool:
    """Whether the units of a part are whole words, lines or titles."""
    own = layout.member[kind]
    return bool(np.isin(own, own[part.letters]).sum() == len(part.letters))


def letter_moves(title: Title) -> list[Move]:
    """The moves of a title that are of its letters, words, lines or itself, not of its copies."""
    return [move for move in title.moves if move.unit in UNIT_KINDS]


def units_for(scene: Scene, title: Title, layout: Layout, move: Move) -> Units:
    """The units that a move of a title moves."""
    return units_of(scene, title, layout, move.unit, move.spaces, move.among)


def units_of(
    scene: Scene,
    title: Title,
    layout: Layout,
    kind: str,
    spaces: bool = False,
    among: Among = None,
) -> Units:
    """The units of a kind of a title in a scene; with `spaces`, white space counts, with `among`
    only what lies in these ranges of the text."""

    def project(times: np.ndarray, points: np.ndarray) -> np.ndarray:
        matrices = resting_matrices(scene.view.unfitted or scene, title, times.reshape(-1))
        matrices = matrices.reshape(*times.shape, 3, 3)
        stand = points if path is None else path.points(times, points)
        seen = (matrices[..., :2] * stand[..., None, :]).sum(-1) + matrices[..., 2]
        return seen[..., :2] / np.maximum(seen[..., 2:], 1e-6)

    path = text_path(scene, title, layout)
    if spaces and kind == "character":
        chosen = cells_among(layout, among)
        centers = layout.cell_centers[chosen]
        larger = {by: layout.cell_member[by][chosen] for by in ("word", "line")}
        member = np.arange(len(centers))
    else:
        part = part_of(layout, kind, among)
        centers, member = part.centers, part.member
        larger = {by: layout.member[by][part.letters] for by in ("word", "line")}

    def find_group(by: str) -> UnitGroup:
        _, first = np.unique(member, return_index=True)  # a character of each unit
        of = larger[by][first]
        if among is None:
            return UnitGroup(of, layout.centers[by])
        known, of = np.unique(of, return_inverse=True)
        return UnitGroup(of, layout.centers[by][known])

    hear = partial(loudness_in, scene)
    return Units(centers, find_group, scene.length, scene.frames_a_second, project, hear)


def cells_among(layout: Layout, among: Among) -> np.ndarray:
    """The cells, white space included, that lie in ranges of the text; all if there are none."""
    indices = np.array(layout.cell_indices, dtype=int)
    return np.arange(len(indices)) if among is None else np.flatnonzero(_within(indices, among))


def unit_texts(layout: Layout, move: Move) -> list[str]:
    """The words of each unit that a move moves, with the white space within it as one space."""
    if move.among is None:
        return layout.texts(move.unit, move.spaces)
    if move.spaces and move.unit == "character":
        return [layout.text[layout.cell_indices[n]] for n in cells_among(layout, move.among)]
    part = part_of(layout, move.unit, move.among)
    texts = [""] * len(part.boxes)
    last: dict[int, int] = {}
    for letter, unit in zip(part.letters.tolist(), part.member.tolist(), strict=True):
        index = layout.characters[letter].index
        texts[unit] += "".join(layout.text[last.get(unit, index) : index + 1])
        last[unit] = index + 1
    return [" ".join(text.split()) for text in texts]
