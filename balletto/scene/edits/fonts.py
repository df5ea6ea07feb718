"""Fonts: one in place of another, wherever that is named."""

from ..changes import Change
from ..errors import SceneError
from ..model import Name
from ..naming import FONTS, named
from .base import Document, Edit, edit


@edit("replace-font")
class ReplaceFont(Edit):
    """Sets everything that is set in a font in another, in scenes within the scene too."""

    font: Name
    value: Name

    def changes(self, document: Document) -> list[Change]:
        found = [place for place, name in named(document, FONTS) if name == self.font]
        if not found:
            raise SceneError.at("font", f"nothing is set in “{self.font}”")
        return [Change("put", place, self.value) for place in found]

    def label(self, document: Document) -> str:
        return f"“{self.value}” in place of “{self.font}”"
