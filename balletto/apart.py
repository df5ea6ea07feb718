"""Work in a process of its own, with limits of memory and time: what becomes of that process harms
nobody else. Such a process is forked from a server that has all imports, in a few milliseconds."""

import resource
import signal
import threading
from collections.abc import Callable
from multiprocessing import get_context
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any, TypeVar

T = TypeVar("T")
MOST_BYTES = 3 * 2**29  # more than the process has to begin with
_MOST_AT_A_TIME = 2  # of this process: what they take together is bounded as well
MOST_SECONDS = 40  # of a processor
_PATIENCE = 4  # times as long by the clock: the machine may be busy

# Whatever does work apart: the server imports it once, when it is first asked. What it had not
# imported, each process would.
PRELOADED = (
    "balletto.lettering.font_inspection",
    "balletto.picture.letterforms.color_glyphs",
    "balletto.picture.pixels.inspection",
)
_context = get_context("forkserver")
_places = threading.BoundedSemaphore(_MOST_AT_A_TIME)

_TOO_LONG = "it takes too long"
_ENDED: dict[int | None, str] = {
    -signal.SIGXCPU: _TOO_LONG,
    -signal.SIGKILL: f"{_TOO_LONG}, or too much memory",
}
_GRACE_S = 10  # before what does not hear that its time is over is killed


class LostProcess(Exception):
    """The process ended, or was ended, before it had an answer; the message says which."""


def apart(
    work: Callable[..., T],
    *arguments: Any,
    seconds: int = MOST_SECONDS,
    most_bytes: int = MOST_BYTES,
) -> T:
    """What a function of a module gives, called in a process of its own; what it raises is raised
    here. LostProcess if it takes more than `seconds` of a processor, or the process ends."""
    _context.set_forkserver_preload([__name__, *PRELOADED])
    with _places:
        receiver, sender = _context.Pipe(duplex=False)
        process = _context.Process(
            target=_answer, args=(sender, seconds, most_bytes, work, arguments), daemon=True
        )
        process.start()
        sender.close()
        try:
            if not receiver.poll(seconds * _PATIENCE):
                raise LostProcess(_TOO_LONG)
            is_done, answer = receiver.recv()
        except EOFError:
            process.join()
            raise LostProcess(_ENDED.get(process.exitcode, "what reads it ended")) from None
        finally:
            process.kill()
            process.join()
            receiver.close()
    if is_done:
        return answer
    raise answer


def _answer(
    sender: Connection,
    seconds: int,
    most_bytes: int,
    work: Callable[..., Any],
    arguments: tuple[Any, ...],
) -> None:
    # Of what may be written to: room that threads set aside, but do not use, takes no memory.
    data = int(Path("/proc/self/statm").read_text().split()[5]) * resource.getpagesize()
    resource.setrlimit(resource.RLIMIT_DATA, (data + most_bytes,) * 2)
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds + _GRACE_S))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    try:
        answer = True, work(*arguments)
    except MemoryError:
        answer = False, LostProcess("it takes too much memory")
    except Exception as error:
        answer = False, error
    sender.send(answer)
