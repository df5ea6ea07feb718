"""The commands of the core: a scene file in; a frame, a clip, numbers or a schema out."""

import argparse
import json
import re
import sys
from pathlib import Path
from typing import Any

from .clip.errors import ClipError
from .clip.export_settings import ExportSettings
from .clip.formats import FORMATS, format_for
from .clip.render import render
from .hearing.beats import beats
from .hearing.samples import SoundError
from .lettering.families import STAND_IN
from .lettering.own_fonts import missing_fonts
from .motion.poses import poses
from .picture.frame import Picture, draw_frame
from .picture.stills import png
from .scene import files
from .scene.document import MAX_SIDE, Scene, rate_of
from .scene.errors import SceneError
from .scene.fits import FIT_KINDS
from .scene.schema import schema
from .sentences.language.tokens import SayingError
from .sentences.reader import Context, context_of
from .sentences.scenes.text import layer_as_text, scene_as_text, scene_from_text
from .understanding.several import understand
from .understanding.understand import understand_line


class CommandError(Exception):
    """What was asked for cannot be done; the message is for the person at the terminal."""


def add_commands(commands: Any) -> None:
    """Adds frame, render, poses, say, read, beats and schema to a command line."""
    frame = commands.add_parser("frame", help="draw one frame of a scene file as a PNG")
    frame.add_argument("file", type=Path)
    frame.add_argument("--at", type=float, default=0, metavar="N", help="the frame (default 0)")
    frame.add_argument("-o", "--output", type=Path, required=True)
    _add_fonts(frame)
    frame.set_defaults(run=_frame)

    clip = commands.add_parser("render", help="render a scene file as a clip")
    clip.add_argument("file", type=Path)
    clip.add_argument("-o", "--output", type=Path, required=True)
    clip.add_argument("--frames", metavar="A-B", help="first and last frame (default: all)")
    clip.add_argument("--format", choices=FORMATS, help="default: what the suffix means")
    clip.add_argument("--size", metavar="WxH", help="in px (default: that of the scene)")
    clip.add_argument("--fit", choices=FIT_KINDS, help="in another shape (default: as it says)")
    clip.add_argument(
        "--rate", help='frames a second, as 25 or "30000/1001" (default: the scene\'s)'
    )
    clip.add_argument("--quality", type=int, default=80, metavar="N", help="0 to 100 (default 80)")
    clip.add_argument("--loops", type=int, default=0, metavar="N", help="of a picture; 0: for ever")
    _add_fonts(clip)
    clip.set_defaults(run=_render)

    numbers = commands.add_parser("poses", help="print the numbers of a title's motion as JSON")
    numbers.add_argument("file", type=Path)
    numbers.add_argument("--layer", required=True, metavar="ID")
    numbers.add_argument("--frames", metavar="A-B", help="first and last frame (default: all)")
    _add_fonts(numbers)
    numbers.set_defaults(run=_poses)

    said = commands.add_parser("say", help="print a scene file, or a layer of it, as sentences")
    said.add_argument("file", type=Path)
    said.add_argument("--layer", metavar="ID")
    _add_fonts(said)
    said.set_defaults(run=_say)

    made = commands.add_parser("make", help="make a scene file of the text that say prints")
    made.add_argument("file", type=Path, help="the text, or - for standard input")
    made.add_argument("-o", "--output", type=Path, required=True)
    made.set_defaults(run=_make)

    meant = commands.add_parser("read", help="print what a sentence means, as JSON of a scene file")
    meant.add_argument(
        "text", nargs="?", help='as "letters rise 100, fade, every 2, over 1s soft landing"'
    )
    meant.add_argument(
        "--lines", metavar="FILE", help="many, as JSON lines of text and context; - is what is sent"
    )
    meant.add_argument(
        "--for",
        dest="file",
        type=Path,
        metavar="FILE",
        help="the scene that it is for: its frames a second count",
    )
    meant.add_argument("--layer", metavar="ID", help="its title, whose letters may be named")
    meant.set_defaults(run=_read)

    heard = commands.add_parser("beats", help="print when the beats of a sound are, in seconds")
    heard.add_argument("file", type=Path)
    heard.set_defaults(run=_beats)

    rules = commands.add_parser("schema", help="print the JSON Schema of a scene file")
    rules.set_defaults(run=_schema)


def _add_fonts(command: argparse.ArgumentParser) -> None:
    told = "where fonts lie that the scene names (default: the folder fonts beside it)"
    command.add_argument("--fonts", type=Path, metavar="FOLDER", help=told)


def load(path: Path, fonts: Path | None = None) -> Scene:
    """The scene of a file, with the fonts of a folder; CommandError with every fault of it. What
    stands in for fonts that are not there is said."""
    if fonts is not None and not fonts.is_dir():
        raise CommandError(f"{fonts} is no folder with fonts")
    try:
        scene = files.parse(path.read_bytes()).in_folder(path.parent, fonts)
    except OSError as error:
        raise CommandError(f"{path} cannot be read: {error.strerror}") from None
    except SceneError as error:
        raise CommandError(f"{path} is not a usable scene:\n{error}") from None
    for place, name in missing_fonts(scene):
        print(f"{place}: the font “{name}” is not here; {STAND_IN} stands in", file=sys.stderr)
    return scene


def frames_from(text: str | None, scene: Scene) -> range:
    """The frames "A-B" (both included) or "A" of a scene; all of them for None."""
    if text is None:
        return range(scene.length)
    first, _, last = text.partition("-")
    try:
        frames = range(int(first), int(last or first) + 1)
    except ValueError:
        raise CommandError(f"--frames takes A-B, as 10-50; got {text!r}") from None
    if not frames or frames.stop > scene.length:
        raise CommandError(f"--frames must lie within 0-{scene.length - 1}; got {text}")
    return frames


def _frame(arguments: argparse.Namespace) -> None:
    scene = load(arguments.file, arguments.fonts)
    arguments.output.write_bytes(png(draw_frame(Picture(scene), arguments.at)))


def _render(arguments: argparse.Namespace) -> None:
    scene = load(arguments.file, arguments.fonts)
    frames = frames_from(arguments.frames, scene)

    def tell(done: int) -> None:
        if sys.stderr.isatty():
            print(f"\r{done} frames", end="", file=sys.stderr)

    try:
        settings = _making(arguments, scene, frames)
        count = render(scene, settings, arguments.output, tell)
    except ClipError as error:
        raise CommandError(str(error)) from None
    except OSError as error:
        raise CommandError(f"{arguments.output} cannot be written: {error.strerror}") from None
    told = f"{count} frames, {float(count / settings.rate):.2f} s"
    if FORMATS[settings.format].is_still:
        told = f"frame {settings.frames[0]}"
    print(f"{arguments.output}: {told}", file=sys.stderr)


def _making(arguments: argparse.Namespace, scene: Scene, frames: range) -> ExportSettings:
    """How a clip is made, as the command line says; CommandError if it says it wrong."""
    chosen = format_for(arguments.output, arguments.format)
    size, rate = scene.size, scene.frames_a_second
    if arguments.size:
        found = re.fullmatch(r"(\d+)[x×](\d+)", arguments.size)
        size = (int(found[1]), int(found[2])) if found else (0, 0)
        if not all(1 <= side <= MAX_SIDE for side in size):
            told = f"--size takes a width and a height up to {MAX_SIDE}, as 1280x720"
            raise CommandError(f"{told}; got {arguments.size!r}")
    if arguments.rate:
        try:
            rate = rate_of(arguments.rate)
        except (ValueError, ZeroDivisionError):
            told = '--rate takes 1 to 240 frames a second, as 25 or "30000/1001"'
            raise CommandError(f"{told}; got {arguments.rate!r}") from None
    if not 0 <= arguments.quality <= 100 or arguments.loops < 0:
        raise CommandError("--quality takes 0 to 100, --loops 0 (for ever) or more")
    if FORMATS[chosen].is_still and arguments.frames is None:
        frames = frames[:1]
    quality, loops = arguments.quality, arguments.loops
    return ExportSettings(chosen, size, rate, frames, arguments.fit, quality, loops)


def _poses(arguments: argparse.Namespace) -> None:
    scene = load(arguments.file, arguments.fonts)
    frames = list(frames_from(arguments.frames, scene))
    try:
        print(json.dumps(poses(scene, arguments.layer, frames), ensure_ascii=False))
    except KeyError as error:
        raise CommandError(error.args[0]) from None


def _say(arguments: argparse.Namespace) -> None:
    scene = load(arguments.file, arguments.fonts)
    try:
        layer = arguments.layer
        print(layer_as_text(scene, layer) if layer else scene_as_text(scene), end="")
    except KeyError as error:
        raise CommandError(error.args[0]) from None


def _make(arguments: argparse.Namespace) -> None:
    try:
        name = str(arguments.file)
        text = sys.stdin.read() if name == "-" else arguments.file.read_text(encoding="utf-8-sig")
        data = files.to_data(files.from_data(scene_from_text(text)))
        arguments.output.write_text(files.to_text(data), encoding="utf-8")
    except OSError as error:
        raise CommandError(f"{error.filename}: {error.strerror}") from None
    except UnicodeDecodeError:
        raise CommandError(f"{arguments.file} is not UTF-8 text") from None
    except SceneError as error:
        raise CommandError(f"{arguments.file} says no usable scene:\n{error}") from None


def _read(arguments: argparse.Namespace) -> None:
    if arguments.lines is not None:
        _read_lines(arguments.lines)
        return
    if arguments.text is None:
        raise CommandError("a sentence is needed, or --lines FILE")
    context = Context()
    if arguments.file is not None:
        context = _context(load(arguments.file), arguments.layer)
    try:
        what, data = understand_line(arguments.text, context).meaning
    except SayingError as fault:
        # The text is shown once more, with a mark under what is not understood.
        marks = " " * fault.start + "^" * max(fault.end - fault.start, 1)
        raise CommandError(f"{arguments.text}\n{marks}\n{fault}") from None
    print(json.dumps({what: data}, ensure_ascii=False))


def _read_lines(name: str) -> None:
    """What each line means, in a line of JSON."""
    lines = sys.stdin if name == "-" else Path(name).read_text(encoding="utf-8").splitlines()
    for line in filter(str.strip, lines):
        try:
            print(json.dumps(_understood(json.loads(line)), ensure_ascii=False))
        except (json.JSONDecodeError, KeyError, TypeError, AttributeError) as error:
            told = 'each line is as {"text": "fade in", "context": {"rate": 30}}'
            raise CommandError(f"{told}; got {line.strip()[:80]} ({error})") from None


def _understood(asked: dict[str, Any]) -> dict[str, Any]:
    told = asked.get("context") or {}
    known = {
        name: told[name]
        for name in ("text", "rate", "kind", "shape", "has_copies", "size")
        if name in told
    }
    context = Context(**known, shapes=tuple(told.get("shapes", ())))
    try:
        parts = understand(asked["text"], context, told.get("move", ""))
    except SayingError as fault:
        place = {"message": str(fault), "start": fault.start, "end": fault.end}
        return {"sentences": [], "parts": [], "assumed": [], "fault": place}
    return {
        "sentences": [part.sentence for part in parts],
        "parts": [{"what": part.meaning.what, "data": part.meaning.data} for part in parts],
        "assumed": [each for part in parts for each in part.assumed],
        "fault": None,
    }


def _context(scene: Scene, layer: str | None) -> Context:
    """What a sentence is read for; CommandError if there is no such layer."""
    if layer is not None:
        try:
            scene.layer(layer)
        except KeyError as error:
            raise CommandError(error.args[0]) from None
    return context_of(scene, layer)


def _beats(arguments: argparse.Namespace) -> None:
    try:
        print(json.dumps([round(float(at), 2) for at in beats(arguments.file)]))
    except SoundError as error:
        raise CommandError(str(error)) from None


def _schema(arguments: argparse.Namespace) -> None:
    print(json.dumps(schema(), indent=1))
