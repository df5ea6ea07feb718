"""Other words for what layers are: "the headline" is a title, "the bar" a rectangle."""

# By the kind of layer, or of shape.
NOUNS: dict[str, tuple[str, ...]] = {
    "title": ("text", "headline", "heading", "caption", "subtitle", "strapline"),
    "picture": ("photo", "image", "still", "logo"),
    "video": ("clip", "film", "footage"),
    "sound": ("music", "song", "track"),
    "group": ("lockup",),
    "shape": (),
    "adjustment": (),
    "rectangle": ("bar", "box", "strap", "panel", "square"),
    "ellipse": ("circle", "disc", "dot"),
    "line": ("rule",),
    "polygon": ("triangle", "hexagon"),
    "star": (),
}
