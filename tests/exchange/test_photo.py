"""A photo comes in as a phone makes it and is kept upright, small, and without its position."""

from __future__ import annotations

import io

import pytest
from PIL import Image

from ohmcensus.core.errors import InputError
from ohmcensus.exchange.photo import LONGEST_SIDE, prepared

GPS, ORIENTATION, TURNED_RIGHT = 0x8825, 0x0112, 6


def photo(size: tuple[int, int], kind: str = "JPEG", *, orientation: int | None = None) -> bytes:
    image = Image.new("RGB", size, "white")
    image.paste("red", (0, 0, size[0] // 2, size[1] // 2))
    exif = image.getexif()
    exif[0x010F] = "Camera of ours"
    exif.get_ifd(GPS)[2] = (50.0, 30.0, 0.0)
    if orientation:
        exif[ORIENTATION] = orientation
    out = io.BytesIO()
    image.save(out, kind, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_position_and_camera_are_left_out(kind: str) -> None:
    body = photo((60, 40), kind)
    assert b"Camera of ours" in body
    kept = prepared(body, "plate")
    assert b"Camera of ours" not in kept.jpeg + kept.small
    with Image.open(io.BytesIO(kept.jpeg)) as image:
        assert (image.format, dict(image.getexif()), image.size) == ("JPEG", {}, (60, 40))
        assert "exif" not in image.info


@pytest.mark.parametrize("place", range(0, 160, 3))
def test_odd_exif_keeps_the_picture(place: int) -> None:
    body = bytearray(photo((60, 40), orientation=TURNED_RIGHT))
    start = body.index(b"Exif")
    body[start + 6 + place % 150] ^= 0xFF
    try:
        kept = prepared(bytes(body), "plate")
    except InputError:
        return
    assert {kept.width, kept.height} == {60, 40}


def test_it_is_turned_upright_and_shrunk() -> None:
    kept = prepared(photo((4000, 1000), orientation=TURNED_RIGHT), "plate")
    assert (kept.width, kept.height) == (LONGEST_SIDE // 4, LONGEST_SIDE)
    with Image.open(io.BytesIO(kept.jpeg)) as image:
        corner = image.getpixel((image.width - 5, 5))
        assert isinstance(corner, tuple)
        assert corner[0] > 200
        assert corner[1] < 60
    with Image.open(io.BytesIO(kept.small)) as small:
        assert max(small.size) == 320


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (b"", "plate.jpg is not a picture that can be read"),
        (b"\xff\xd8\xff\xe0 but then nothing", "is not a picture"),
        (photo((60, 40))[:300], "is not a picture"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "is not a picture"),
        (b"%PDF-1.7", "is not a picture"),
        (b"\x00\x00\x00\x18ftypheic" + b"\x00" * 40, "is a HEIC photo, which is not read here"),
        (b"\xff\xd8" + b"\x00" * 40_000_000, "has 40 MB, at most 30 MB are taken"),
    ],
    ids=["empty", "says JPEG and is not", "cut off", "svg", "pdf", "heic", "40 MB"],
)
def test_what_is_no_photo_gets_one_sentence(body: bytes, says: str) -> None:
    with pytest.raises(InputError, match=says):
        prepared(body, "plate.jpg")


def test_a_picture_of_too_many_pixels_is_refused_before_it_is_unpacked() -> None:
    out = io.BytesIO()
    Image.new("1", (12_000, 9_000)).save(out, "PNG")
    with pytest.raises(InputError, match="12000 × 9000 pixels"):
        prepared(out.getvalue(), "plate.png")
