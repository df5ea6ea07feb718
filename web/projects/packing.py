"""Documents of revisions as they are kept: compressed by Zstandard (RFC 8878), most of them against
the text of an older one, of which they differ by an edit or a few."""

import json
from typing import Any

import zstandard

LEVEL = 9


def text_of(document: dict[str, Any]) -> bytes:
    """A document as the text that is compressed."""
    return json.dumps(document, separators=(",", ":"), ensure_ascii=False).encode()


def packed(text: bytes, basis: bytes = b"") -> bytes:
    """A text compressed; against another, it is kept as what differs."""
    known = _known(basis)
    # What it is told of the sizes makes it look back as far as the basis reaches.
    parameters = zstandard.ZstdCompressionParameters.from_level(
        LEVEL, source_size=len(text) + len(basis), dict_size=len(basis), write_checksum=True
    )
    return zstandard.ZstdCompressor(dict_data=known, compression_params=parameters).compress(text)


def unpacked(data: bytes, basis: bytes = b"") -> bytes:
    """The text that was compressed against the same basis."""
    return zstandard.ZstdDecompressor(dict_data=_known(basis)).decompress(data)


def _known(basis: bytes) -> zstandard.ZstdCompressionDict | None:
    if not basis:
        return None
    return zstandard.ZstdCompressionDict(basis, dict_type=zstandard.DICT_TYPE_RAWCONTENT)
