"""The units of a title as staggers and selectors see them: where they are, and in what."""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import numpy as np

from ..lettering.layout import Layout, lay_out
from ..scene.document import Scene
from ..scene.layers import Title
from .space import layer_matrices


@dataclass(frozen=True)
class Group:
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
    """

    centers: np.ndarray
    find_group: Callable[[str], Group | None] = _no_group
    length: int = 1
    rate: Fraction = Fraction(30)
    project: Callable[[np.ndarray, np.ndarray], np.ndarray] | None = None

    def __len__(self) -> int:
        return len(self.centers)

    def in_picture(self, times: np.ndarray) -> np.ndarray:
        """The rest centres in the picture at `times`, (t, 1) or (t, n): (t, n, 2)."""
        if self.project is None:
            return np.broadcast_to(self.centers, (len(times), *self.centers.shape))
        return self.project(times, self.centers)


def units_of(scene: Scene, title: Title, layout: Layout, kind: str, spaces: bool = False) -> Units:
    """The units of a kind of a title in a scene; with `spaces`, white space counts."""

    def project(times: np.ndarray, points: np.ndarray) -> np.ndarray:
        matrices = layer_matrices(scene.view.unfitted or scene, title, times.reshape(-1))
        matrices = matrices.reshape(*times.shape, 3, 3)
        seen = (matrices[..., :2] * points[:, None, :]).sum(-1) + matrices[..., 2]
        return seen[..., :2] / np.maximum(seen[..., 2:], 1e-6)

    if spaces and kind == "character":
        centers, member = layout.cell_centers, layout.cell_member
    else:
        centers, member = layout.centers[kind], layout.member

    def find_group(by: str) -> Group:
        _, first = np.unique(member[kind], return_index=True)  # a character of each unit
        return Group(member[by][first], layout.centers[by])

    return Units(centers, find_group, scene.length, scene.frames_a_second, project)


def sweep_of(title: Title, kind: str, first: int, end: int) -> dict[str, Any] | None:
    """A sweep, as plain data, that holds just the units with characters first..end of the text;
    None if there are none."""
    layout = lay_out(title)
    chosen = [
        int(unit)
        for character, unit in zip(layout.characters, layout.member[kind], strict=True)
        if first <= character.place < end
    ]
    if not chosen:
        return None
    low, high = min(chosen), max(chosen) + 1
    return {"kind": "sweep", "measure": "units", "low": low, "high": high}
