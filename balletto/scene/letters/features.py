"""Features of fonts: what can be chosen of their letters, by the tags of OpenType 1.9, in words."""

# On as a rule where a font has them, so that they are left out, not asked for.
USUAL = ("liga", "calt", "kern", "clig")
FEATURES = {
    "liga": "ligatures",
    "dlig": "rare ligatures",
    "calt": "letters that mind their neighbours",
    "kern": "kerning",
    "smcp": "small capitals",
    "c2sc": "small for large capitals",
    "tnum": "tabular figures",
    "pnum": "proportional figures",
    "onum": "old-style figures",
    "lnum": "lining figures",
    "frac": "fractions",
    "ordn": "ordinals",
    "zero": "slashed zeros",
    "sups": "superiors",
    "subs": "inferiors",
    "swsh": "swashes",
    "salt": "alternate letters",
    "titl": "titling letters",
    "case": "signs for capitals",
}
FEATURE = "feature"  # one without words, by its tag
SET = "stylistic set"  # of letters that go together, by its number
MOST_SETS = 20


def feature_name(tag: str) -> str:
    """What a feature is called; those without words by their tags."""
    if is_set(tag):
        return f"{SET} {int(tag[2:])}"
    return FEATURES.get(tag, f"{FEATURE} “{tag}”")


def is_set(tag: str) -> bool:
    """Whether a tag is that of a stylistic set."""
    return tag.startswith("ss") and tag[2:].isdecimal()


def tag_of_set(number: float) -> str:
    """The tag of a stylistic set."""
    return f"ss{min(max(int(number), 1), MOST_SETS):02}"
