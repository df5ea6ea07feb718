"""The sentences of the scene itself: its background, its open shutter, how it fits other shapes."""

from typing import Any

from django.utils.safestring import SafeString

from balletto.intents.situation import ShelfFile
from balletto.scene.document import Scene
from balletto.scene.moving.motion_blur import SHUTTER
from balletto.scene.starts import USUAL_SIZES
from balletto.sentences.scenes.fits import say_fits
from balletto.sentences.scenes.ground import PATH, say_ground
from balletto.sentences.scenes.wording import say_picture

from .media_sentences import file_options, frames_of, missing_words
from .phrases import NOW, Moment, edit_of, shown
from .sentence_parts import SentencePart

_FROM_FILES = {"still": "still", "video": "clip"}


class SceneWords:
    """The sentences of a scene; `files` are those that it can lie on, the newest first."""

    def __init__(self, document: Scene, files: list[ShelfFile], moment: Moment = NOW):
        self._scene, self._files, self._moment = document, files, moment

    @property
    def background(self) -> SafeString:
        """What lies behind everything."""
        background, starts = self._scene.background, dict[str, Any]()
        for file_kind, kind in _FROM_FILES.items():
            if file := next((each for each in self._files if each.kind == file_kind), None):
                after = {"after": "loop"} if file.ships else {}
                starts[kind] = {"kind": kind, "file": file.name, **after}
        kinds = {kind: of for of, kind in _FROM_FILES.items()}
        options = file_options(self._files, kinds.get(background.kind, ""))
        return shown(say_ground(background, starts, options))

    @property
    def warnings(self) -> list[str]:
        """What is wrong with the background."""
        file = getattr(self._scene.background, "file", None)
        return [told] if file and (told := missing_words(self._scene, file)) else []

    @property
    def actions(self) -> list[dict[str, Any]]:
        """What else can be done with the scene as a whole."""
        background, actions = self._scene.background, []
        if background.kind == "clip" and (length := frames_of(self._scene, background)):
            edit = {"name": "set-length", "length": length}
            actions.append({"label": "as long as the video", "edit": edit})
        if background.kind == "gradient":
            actions += self._gradient_actions()
        path = "scene.motion_blur"
        if self._scene.motion_blur is None:
            edit = {"name": "set-value", "path": path, "value": {"angle": 180}}
            actions.append({"label": "motion blur for all", "edit": edit})
        else:
            edit = {"name": "clear-value", "path": path}
            actions.append({"label": "no motion blur for all", "edit": edit})
        return actions

    def _gradient_actions(self) -> list[dict[str, Any]]:
        fill = self._scene.background.fill
        colors = list(fill.colors)
        other = "round" if fill.kind == "linear" else "linear"
        changes = [(f"a {other} gradient", {"kind": other, "colors": colors})]
        plain = fill.model_dump(exclude_unset=True)
        if len(colors) < 6:
            changes.append(("one colour more", {**plain, "colors": [*colors, "#F2B705"]}))
        if len(colors) > 2:
            changes.append(("one colour less", {**plain, "colors": colors[:-1]}))
        return [
            {"label": label, "edit": {**edit_of(f"{PATH}.fill"), "value": value}}
            for label, value in changes
        ]

    @property
    def picture(self) -> SafeString:
        """How large the picture is, and from how far it is looked at."""
        return shown(say_picture(self._scene))

    @property
    def sizes(self) -> list[dict[str, Any]]:
        """Usual sizes, as edits with their names; all layers are fitted so that they are seen."""
        return [
            {
                "label": f"{shape}, {size[0]} × {size[1]}",
                "edit": {"name": "set-size", "size": list(size), "fit": "whole"},
            }
            for size, shape in USUAL_SIZES
            if size != tuple(self._scene.size)
        ]

    @property
    def shutter(self) -> SafeString | str:
        """The shutter of the whole scene, if it is open."""
        if self._scene.motion_blur is None:
            return ""
        words = SentencePart("scene.motion_blur", self._scene.motion_blur, SHUTTER, self._moment)
        return words.sentence()

    @property
    def fits(self) -> list[SafeString]:
        """How the scene fills each other shape, with the places of its layers there."""
        return [shown(each) for each in say_fits(self._scene)]
