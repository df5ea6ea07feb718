"""Sending a file, or the part of it that a player asks for (RFC 9110, section 14)."""

import mimetypes
import re
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from uuid import uuid4

from django.http import FileResponse, Http404, HttpRequest, HttpResponse, StreamingHttpResponse

_RANGE = re.compile(r"bytes=(\d*)-(\d*)$")
_CHUNK = 256 * 1024
# So much at a time of a part without an end: a player that waits would hold a thread of the server
# for as long; it asks for the next part when it needs it.
_PART = 1024 * 1024


@contextmanager
def written_whole(place: Path) -> Iterator[Path]:
    """A path to write to, from where a file appears at its place once it is whole; several may
    write the same at once."""
    place.parent.mkdir(parents=True, exist_ok=True)
    coming = place.with_name(f".{uuid4().hex}.part")
    try:
        yield coming
        coming.replace(place)
    finally:
        coming.unlink(missing_ok=True)


def send_file(request: HttpRequest, path: Path, name: str, download: bool) -> HttpResponse:
    """The file at `path`, whole or in part; `download` has it saved as `name`."""
    try:
        size = path.stat().st_size
    except FileNotFoundError:
        raise Http404("this file is not there any more") from None
    asked = _RANGE.match(request.headers.get("Range", ""))
    if not asked or asked.groups() == ("", ""):
        response = FileResponse(path.open("rb"), as_attachment=download, filename=name)
        response["Accept-Ranges"] = "bytes"
        return response
    first, end = _bounds(*asked.groups(), size)
    if not asked[2]:
        end = min(end, first + _PART)
    if first >= end:
        return HttpResponse(status=416, headers={"Content-Range": f"bytes */{size}"})
    kind = mimetypes.guess_type(path.name)[0] or "application/octet-stream"
    response = StreamingHttpResponse(_read(path, first, end), status=206, content_type=kind)
    response["Content-Range"] = f"bytes {first}-{end - 1}/{size}"
    response["Content-Length"] = str(end - first)
    response["Accept-Ranges"] = "bytes"
    return response


def _bounds(first: str, last: str, size: int) -> tuple[int, int]:
    """First byte and end of a range; without a first byte, `last` counts from the file's end."""
    if not first:
        return max(size - int(last), 0), size
    return int(first), min(int(last) + 1, size) if last else size


def _read(path: Path, first: int, end: int) -> Iterator[bytes]:
    with path.open("rb") as file:
        file.seek(first)
        while first < end and (chunk := file.read(min(_CHUNK, end - first))):
            first += len(chunk)
            yield chunk
