"""A photo as it comes from a phone, to a picture fit to keep: upright, small, without position data."""

from __future__ import annotations

import io
import struct
import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from ohmcensus.core.errors import InputError

LARGEST_FILE = 30_000_000
LARGEST_PIXELS = 80_000_000
LONGEST_SIDE = 2000
SMALL_SIDE = 320
MARK_SIZE = (480, 160)
QUALITY = 85
# Pixels are counted here, in one sentence, before anything is unpacked.
Image.MAX_IMAGE_PIXELS = None
_READ = ("JPEG", "PNG", "WEBP", "BMP", "TIFF")
_HEIC_BRANDS = (b"heic", b"heix", b"hevc", b"mif1", b"msf1", b"heim")


@dataclass(frozen=True, slots=True)
class Picture:
    """A JPEG, its thumbnail, and its size in pixels."""

    jpeg: bytes
    small: bytes
    width: int
    height: int


def prepared(body: bytes, name: str) -> Picture:
    """Re-encode a photo: turned upright, shrunk to 2000 pixels, everything but the picture left out.

    Parameters
    ----------
    body
        Content of the file.
    name
        Its name, for messages.

    Raises
    ------
    InputError
        If it is too large, a HEIC, or no picture.
    """
    upright = _opened(body, name, (LONGEST_SIDE, LONGEST_SIDE))
    small = upright.copy()
    small.thumbnail((SMALL_SIDE, SMALL_SIDE))
    return Picture(_jpeg(upright), _jpeg(small), upright.width, upright.height)


def small_mark(body: bytes, name: str) -> bytes:
    """Re-encode a firm's mark as a JPEG of at most 480 by 160 pixels; see ``prepared``."""
    return _jpeg(_opened(body, name, MARK_SIZE))


def _opened(body: bytes, name: str, size: tuple[int, int]) -> Image.Image:
    """Return a picture upright, no larger than a size, what is clear in it white."""
    shown = name[:60] or "the file"
    if len(body) > LARGEST_FILE:
        what = f"{shown} has {len(body) / 1e6:.0f} MB, at most {LARGEST_FILE / 1e6:.0f} MB are taken"
        raise InputError(what=what, remedy="take it at a lower resolution", field="photo")
    if body[4:8] == b"ftyp" and body[8:12] in _HEIC_BRANDS:
        remedy = "set the camera to JPEG, or share it as JPEG"
        raise InputError(what=f"{shown} is a HEIC photo, which is not read here", remedy=remedy, field="photo")
    try:
        with _quiet(), Image.open(io.BytesIO(body), formats=_READ) as found:
            _refuse_large(found, shown)
            found.draft("RGB", size)
            found.thumbnail(size)
            return _on_white(_upright(found))
    except _UNREADABLE as error:
        remedy = "choose a photo in JPEG, PNG or WebP"
        raise InputError(what=f"{shown} is not a picture that can be read", remedy=remedy, field="photo") from error


def _on_white(image: Image.Image) -> Image.Image:
    """Return a picture without transparency: what is clear becomes paper."""
    if not image.has_transparency_data:
        return image.convert("RGB")
    clear = image.convert("RGBA")
    paper = Image.new("RGBA", clear.size, "white")
    return Image.alpha_composite(paper, clear).convert("RGB")


# What the picture library raises for content that it cannot make sense of.
_UNREADABLE = (UnidentifiedImageError, OSError, ValueError, SyntaxError, TypeError, struct.error, ArithmeticError)


def _upright(image: Image.Image) -> Image.Image:
    """Return a picture turned as its EXIF says; one whose EXIF cannot be read stays as it lies."""
    try:
        return ImageOps.exif_transpose(image)
    except (*_UNREADABLE, LookupError, AttributeError):
        return image


@contextmanager
def _quiet() -> Iterator[None]:
    """Leave out what the library says of odd EXIF: the picture counts."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        yield


def _refuse_large(image: Image.Image, shown: str) -> None:
    """Refuse a picture of too many pixels before any of them is unpacked."""
    if image.width * image.height > LARGEST_PIXELS:
        what = f"{shown} has {image.width} × {image.height} pixels"
        raise InputError(what=what, remedy="take it at a lower resolution", field="photo")


def thumbnail(jpeg: bytes) -> bytes:
    """Return the small one of a picture that was kept before.

    Raises
    ------
    InputError
        If it is no JPEG that can be read, or has too many pixels.
    """
    try:
        with _quiet(), Image.open(io.BytesIO(jpeg), formats=["JPEG"]) as found:
            _refuse_large(found, "a photo in the file")
            found.draft("RGB", (SMALL_SIDE, SMALL_SIDE))
            small = found.convert("RGB")
    except _UNREADABLE as error:
        what = "a photo in the file is not a picture that can be read"
        raise InputError(what=what, remedy="take another copy of the file", field="photo") from error
    small.thumbnail((SMALL_SIDE, SMALL_SIDE))
    return _jpeg(small)


def _jpeg(image: Image.Image) -> bytes:
    """Encode the picture alone: no EXIF, no colour profile, no comment."""
    bare = Image.new("RGB", image.size)
    bare.paste(image)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()
